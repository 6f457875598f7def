"""Made-up scenes to start from."""

from .quarry_pool import quarry_pool

SAMPLES = {"quarry-pool": quarry_pool}

__all__ = ["SAMPLES", "quarry_pool"]
