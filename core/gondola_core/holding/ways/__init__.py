"""Every way of holding a figure; each file registers its own. The order is that in which they are told."""

from . import on_bed  # isort: skip
from . import staged  # isort: skip
from . import bar  # isort: skip
from . import line  # isort: skip
from . import glue_spot  # isort: skip
from . import pin  # isort: skip
from .way import SAFETY, WAYS, Nearby, Pull, Way, way_name

__all__ = [
    "SAFETY", "WAYS", "Nearby", "Pull", "Way", "bar", "glue_spot", "line", "on_bed", "pin", "staged", "way_name",
]
