"""Pieces to start from, each another kind of work; a start is a file, planned as any piece is when it is taken."""

from ...discover import import_all
from .start import STARTS, Start, begin_like

import_all(__name__, __path__)

__all__ = ["STARTS", "Start", "begin_like"]
