"""The stager: searches ways of pouring a scene, and shows the few on the front of what matters."""

from .plans import Front, Plan, front_for
from .search import GOALS, Goal

__all__ = ["GOALS", "Front", "Goal", "Plan", "front_for"]
