"""Every way of holding a figure; each file registers its own, with its place among those that are told."""

from ...discover import import_all
from .way import SAFETY, WAYS, Nearby, Pull, Way, way_name, ways_in_order

import_all(__name__, __path__)

__all__ = ["SAFETY", "WAYS", "Nearby", "Pull", "Way", "way_name", "ways_in_order"]
