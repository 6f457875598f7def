"""Events of a made-up pour day."""

from datetime import UTC, datetime, timedelta

from gondola_core.bench.events import kept_events

START = datetime(2027, 3, 5, 9, 0, tzinfo=UTC)
_count = 0


def at(hours):
    return START + timedelta(hours=hours)


def told(*rows):
    """Events from (hours after the first pour, kind, fields)."""
    global _count
    found = []
    for hours, kind, fields in rows:
        _count += 1
        found.append({"id": f"event-{_count:05d}", "at": at(hours), "kind": kind, **fields})
    return kept_events(found)


def poured(pour_id, hours, a=None, b=None, **more):
    """A pour that began so late, from one cup of so much."""
    rows = []
    if a is not None:
        rows += [
            (hours - 0.3, "weighed", {"pour_id": pour_id, "cup": 1, "part": "a", "mass_g": a}),
            (hours - 0.2, "weighed", {"pour_id": pour_id, "cup": 1, "part": "b", "mass_g": b}),
        ]
    return told(
        *rows, (hours - 0.2, "met", {"pour_id": pour_id, "cup": 1}), (hours, "pouring", {"pour_id": pour_id}),
        (hours + 0.1, "poured", {"pour_id": pour_id, **more}),
    )
