"""How finely a march is computed."""

from __future__ import annotations

from dataclasses import dataclass

from ..cure.march import Tolerance


@dataclass(frozen=True, slots=True, kw_only=True)
class Grade:
    """How finely the march is computed; in a large tank cells grow until `most_cells` do.

    least_across, least_levels   cells across a narrow tank, and in the height of a thin pour
    base_mm                      tallest cell of the base
    """

    name: str
    cell_mm: float
    most_cells: int
    least_across: int
    least_levels: int
    base_mm: float
    tolerance: Tolerance

    def coarser(self, name: str) -> Grade:
        """Cells of twice the size everywhere."""
        return Grade(
            name=name, cell_mm=2 * self.cell_mm, most_cells=max(1, self.most_cells // 8),
            least_across=max(2, self.least_across // 2), least_levels=max(1, self.least_levels // 2),
            base_mm=2 * self.base_mm, tolerance=self.tolerance,
        )


DRAFT = Grade(
    name="draft", cell_mm=10.0, most_cells=8_000, least_across=6, least_levels=4, base_mm=9.0,
    tolerance=Tolerance(temperature_k=0.2, degree=2e-3),
)
FINE = Grade(
    name="fine", cell_mm=4.0, most_cells=400_000, least_across=12, least_levels=6, base_mm=4.5,
    tolerance=Tolerance(temperature_k=0.05, degree=5e-4),
)
BAND = DRAFT.coarser("band")
