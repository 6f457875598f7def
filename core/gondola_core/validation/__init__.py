"""Each model against its closed form or published table: `gondola validate` measures and writes what it finds."""

from ..discover import import_all
from .measured import Measured, measure_all
from .report import validation_page

import_all(__name__, __path__)

__all__ = ["Measured", "measure_all", "validation_page"]
