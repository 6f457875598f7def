"""How the kernels of the look are compiled: kept on disk, free of the interpreter, sums in any order."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from numba import njit

njit_fast: Callable[[Any], Any] = njit(nogil=True, cache=True, fastmath=True, error_model="numpy")
