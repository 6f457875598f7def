"""How finely a march is computed."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..cure.march import Tolerance


@dataclass(frozen=True, slots=True, kw_only=True)
class Grade:
    """How finely the march is computed; in a large tank cells grow until `most_cells` do.

    least_across, least_levels   cells across a narrow tank, and in the height of a thin pour
    base_mm                      tallest cell of the base
    roughened                    how many times its cells and steps were made rougher
    """

    name: str
    cell_mm: float
    most_cells: int
    least_across: int
    least_levels: int
    base_mm: float
    tolerance: Tolerance
    roughened: int = 0

    def coarser(self, name: str) -> Grade:
        """Cells of twice the size everywhere."""
        return Grade(
            name=name, cell_mm=2 * self.cell_mm, most_cells=max(1, self.most_cells // 8),
            least_across=max(2, self.least_across // 2), least_levels=max(1, self.least_levels // 2),
            base_mm=2 * self.base_mm, tolerance=self.tolerance, roughened=self.roughened,
        )

    def rougher(self) -> Grade:
        """Cells of twice the size, and steps that may be longer and off twice as far."""
        allowed = self.tolerance
        rough = replace(
            allowed, temperature_k=2 * allowed.temperature_k, degree=2 * allowed.degree,
            longest_step=1.5 * allowed.longest_step,
        )
        return replace(self.coarser(self.name), tolerance=rough, roughened=self.roughened + 1)


DRAFT = Grade(
    name="draft", cell_mm=10.0, most_cells=8_000, least_across=6, least_levels=4, base_mm=9.0,
    tolerance=Tolerance(temperature_k=0.2, degree=2e-3),
)
FINE = Grade(
    name="fine", cell_mm=4.0, most_cells=400_000, least_across=12, least_levels=6, base_mm=4.5,
    tolerance=Tolerance(temperature_k=0.05, degree=5e-4),
)
BAND = DRAFT.coarser("band")

LADDER = {
    DRAFT.name: (3.0e8, 1.0e8, 0.5e8),
    BAND.name: (0.6e8, 0.3e8, 0.15e8),
}
"""Work of a march, in cells times stages, after which it is given up and begun anew on rougher cells; after the last
of them it is given as long as it takes. Source: own_march, so that the largest scenes are drafted in some 3 s"""
LEAST_STAGES = 1000
"""Stages that a pour takes at least, of a cell that is there for half of the march. Source: own_march"""


def least_work(cells: int, pours: int) -> float:
    """Work of which no march of so many cells has taken less, for not beginning what cannot be ended."""
    return 0.5 * cells * pours * LEAST_STAGES


def rungs(grade: Grade) -> list[Grade]:
    """The grade, and those that take its place where a march on it takes too much work; each a march may be out of.

    A fine march has one: it is given as long as it takes.
    """
    found, rung = [], grade
    for most in LADDER.get(grade.name, ()):
        found.append(replace(rung, tolerance=replace(rung.tolerance, most_work=most)))
        rung = rung.rougher()
    return [*found, rung]
