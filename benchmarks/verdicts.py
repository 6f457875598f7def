"""Over seeded scenes: where a draft and a fine march come to another verdict, and how often a draft says it cannot."""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

from gondola_core.answers.kept import Keeper
from gondola_core.evaluate import DRAFT, FINE, evaluate
from gondola_core.scene import Scene

sys.path.insert(0, str(Path(__file__).resolve().parent.parent / "core" / "tests"))
from seeded_scenes import HOTTEST_C, varied_scene
from verdicts_of import differing, verdicts


def scenes(count: int, seed: int) -> list[Scene]:
    """Scenes below runaway."""
    rng = np.random.default_rng(seed)
    found: list[Scene] = []
    while len(found) < count:
        scene = varied_scene(rng)
        hottest = evaluate(scene, DRAFT, Keeper()).whole.hottest_c
        if hottest is not None and hottest < HOTTEST_C + 10:
            found.append(scene)
    return found


def main(count: int, seed: int) -> None:
    off, close, told = 0, 0, 0
    for number, scene in enumerate(scenes(count, seed)):
        draft, fine = evaluate(scene, DRAFT, Keeper()), evaluate(scene, FINE, Keeper())
        found = differing(draft, fine)
        off += bool(found)
        close += sum(called for _, called in verdicts(draft).values())
        told += len(verdicts(draft))
        if found:
            print(number, scene.tank.shape.kind, scene.tank.inner_width_mm, found,
                  [(p.cure.peak_c, p.cure.gel_h, p.cure.tack_closes_h) for p in draft.pours if p.cure],
                  [(p.cure.peak_c, p.cure.gel_h, p.cure.tack_closes_h) for p in fine.pours if p.cure], flush=True)
    print(f"{count} scenes below runaway: {off} with a verdict that differs; {close} of {told} verdicts called close")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 100, int(sys.argv[2]) if len(sys.argv) > 2 else 7)
