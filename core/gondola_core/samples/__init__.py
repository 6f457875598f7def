"""Made-up scenes to start from and to test with."""

from collections.abc import Callable

from ..scene import Scene
from .blank import blank
from .eelgrass import eelgrass
from .ferry_landing import ferry_landing
from .quarry_pool import quarry_pool

SAMPLES: dict[str, Callable[[], Scene]] = {
    "quarry-pool": quarry_pool,
    "eelgrass": eelgrass,
    "ferry-landing": ferry_landing,
}

__all__ = ["SAMPLES", "blank", "eelgrass", "ferry_landing", "quarry_pool"]
