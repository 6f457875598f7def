"""Where things lie: in a checkout beside the code; installed, the page in the package, the data with the account."""

from __future__ import annotations

import os
from collections.abc import Mapping
from pathlib import Path

HERE = Path(__file__).resolve().parent
CHECKOUT = HERE.parents[1]
BUILT = CHECKOUT / "web" / "dist"
PACKED = HERE / "page"
"""The built front end of an installed package."""


def is_checkout() -> bool:
    """Whether this runs from the repository."""
    return (CHECKOUT / "server" / "manage.py").is_file()


def page_folder() -> Path:
    """The built front end."""
    return BUILT if is_checkout() else PACKED


def usual_data(environment: Mapping[str, str] = os.environ) -> Path:
    """The data folder: GONDOLA_DATA; else `data` in the checkout; else that of the account for programs' data."""
    told = environment.get("GONDOLA_DATA")
    if told:
        return Path(told)
    if is_checkout():
        return CHECKOUT / "data"
    return Path(environment.get("XDG_DATA_HOME") or Path.home() / ".local" / "share") / "gondola"
