"""Large tanks, whose cells are several times as large as usual in a draft, marched finely: for the errors it tells.

`python benchmarks/large.py` writes `core/tests/large.csv`, in a quarter of an hour; a fine march is within 2 % of a
converged one, which is a fraction of what such a draft is off.
"""

from __future__ import annotations

import csv
import sys
from pathlib import Path

import numpy as np

from gondola_core.answers.book import Book
from gondola_core.answers.heat import MARCH
from gondola_core.answers.kept import Keeper
from gondola_core.evaluate import FINE

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT / "core" / "tests"))
from seeded_scenes import LARGE_SEED, large_scene

TABLE = ROOT / "core" / "tests" / "large.csv"
COUNT = 5
COLUMNS = ("peak_c", "gel_h", "tack_closes_h", "hard_h", "demould_h")


def main() -> None:
    """March each and write the table."""
    rng = np.random.default_rng(LARGE_SEED)
    with TABLE.open("w", newline="") as file:
        table = csv.writer(file, lineterminator="\n")
        table.writerow(["scene", "pour", *COLUMNS])
        for number in range(COUNT):
            cures = Book(large_scene(rng), FINE, Keeper()).ask(MARCH).cures
            for pour, cure in enumerate(cures, start=1):
                if cure is not None:
                    table.writerow([number, pour, *(round(getattr(cure, name) or np.nan, 2) for name in COLUMNS)])
            print(f"{number}: {len(cures)} pours", flush=True)


if __name__ == "__main__":
    main()
