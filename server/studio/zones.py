"""Time zones by their names, as a browser tells them."""

from __future__ import annotations

from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from gondola_core.errors import GondolaError


def zone_of(name: str) -> ZoneInfo:
    """A time zone by its name; GondolaError where there is none."""
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise GondolaError(f"'{name}' is no time zone that is known here, such as Europe/Oslo.", "zone") from None
