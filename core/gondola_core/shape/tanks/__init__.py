"""The tank's inner outline; one file a shape, each registers itself."""

from ...discover import import_all
from .plan import floor_plan, plan_box, tank_plan, wall_heights
from .register import FLOORS, tank_shape

import_all(__name__, __path__)

__all__ = ["FLOORS", "floor_plan", "plan_box", "tank_plan", "tank_shape", "wall_heights"]
