"""Speed, printed as ratios against a reference in the same run. Two noisy cores: read ratios."""

from __future__ import annotations

import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "benchmarks"), str(ROOT / "core" / "tests"), str(ROOT / "server")]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gondola_server.settings")
os.environ.setdefault("GONDOLA_SECRET_KEY", "only-for-benchmarks")

import numpy as np
from marching import drafts_against_fine, heat
from meshing import shapes
from page import the_page
from pour_day import pour_day
from reference_march import reference_peak
from staging import staging
from watering import dragged_at_the_server, water

from gondola_core.answers.kept import Keeper
from gondola_core.cure.cells import whole_box
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import Room, TimedPour, Tolerance, march_pours
from gondola_core.evaluate import DRAFT, FINE, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.views.picture import picture


def timed(work: Callable[[], object], times: int = 1) -> float:
    """Median seconds of some runs, after one that is not counted where there are several."""
    if times > 1:
        work()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        work()
        taken.append(time.perf_counter() - start)
    return statistics.median(taken)


def moved_scenes(count: int) -> list[dict[str, object]]:
    """The demo scene with its second line at ever new places, as a drag sends it."""
    scenes = []
    for step in range(count):
        document = quarry_pool().model_dump(mode="json")
        document["pours"][1]["top_depth_mm"] = 38.0 + 0.5 * step
        scenes.append(document)
    return scenes


def drafts_at_the_server() -> None:
    import django

    django.setup()
    from django.contrib.auth.models import User
    from django.test import Client
    from django.test.utils import setup_databases, setup_test_environment, teardown_databases

    setup_test_environment()
    databases = setup_databases(verbosity=0, interactive=False)
    client = Client()
    client.force_login(User.objects.create_user("bench"))
    bodies = [json.dumps(document) for document in moved_scenes(24)]

    def ask(url: str, body: str) -> None:
        answer = client.post(url, body, content_type="application/json")
        assert answer.status_code == 200, answer.content

    for body in bodies[:4]:
        ask("/api/evaluate", body)
    taken = [timed(lambda body=body: ask("/api/evaluate", body)) for body in bodies[4:]]
    ask("/api/picture", bodies[0])
    pictures = [timed(lambda body=body: ask("/api/picture", body)) for body in bodies[2:12]]
    dragged_at_the_server(lambda url, body: ask(url, json.dumps(body)), timed)
    teardown_databases(databases, verbosity=0)
    print("Draft evaluation of the demo scene at the server, a new line each time, warm")
    print(f"  median {statistics.median(taken) * 1e3:6.0f} ms   worst {max(taken) * 1e3:.0f} ms"
          f"   (to reach: 150 ms)")
    print(f"  picture, 480 x 320   median {statistics.median(pictures) * 1e3:.0f} ms")


def march_against_bdf() -> None:
    """150 x 100 x 80 mm, 8 mm cells, three pours of deep-pour resin, 72 h."""
    library = load_library()
    around = Surroundings(
        wall=library.solids["acrylic"], wall_thickness=0.003,
        base=library.solids["wood"], base_thickness=0.018,
    )
    tops = [0.08 / 3 * n for n in (1, 2, 3)]
    pours = [TimedPour(start=24 * 3600.0 * n, mix_c=23.0, resin=0) for n in range(3)]
    resins, room, end = [library.resins["deep"]], np.full(4, 23.0), 72 * 3600.0

    def march(cell: float, levels: int, step_k: float) -> float:
        marched = march_pours(
            whole_box((0.15, 0.10), tops, cell, levels), around, resins, pours, Room(room, end), end,
            Tolerance(temperature_k=step_k, degree=step_k / 100),
        )
        return float(np.nanmax(marched.peak_c))

    geometry = whole_box((0.15, 0.10), tops, 0.008, 4)
    peaks: list[float] = []
    ours = timed(lambda: peaks.append(march(0.008, 4, 0.05)), 7)
    exact = march(0.008, 4, 0.0005)
    start = time.perf_counter()
    theirs, _, _ = reference_peak(geometry, around, resins, pours, 23.0, end, rtol=1e-4)
    bdf = time.perf_counter() - start
    print("March against SciPy solve_ivp (BDF, sparse Jacobian), same cells, 72 h, three pours")
    print(f"  ours {ours * 1e3:.0f} ms, peak {peaks[-1]:.3f} C    BDF {bdf:.1f} s, peak"
          f" {theirs:.3f} C    converged steps {exact:.3f} C")
    print(f"  ratio {bdf / ours:.0f} times   (to reach: 20)")
    fine = timed(lambda: march(0.004, 4, 0.05), 3)
    print(f"  the same on 4 mm cells: {fine:.2f} s")


def grades_of_the_demo() -> None:
    draft = timed(lambda: evaluate(quarry_pool(), DRAFT, Keeper()), 5)
    fine = timed(lambda: evaluate(quarry_pool(), FINE, Keeper()))
    keeper = Keeper()
    evaluate(quarry_pool(), DRAFT, keeper)
    kept = timed(lambda: evaluate(quarry_pool(), DRAFT, keeper), 5)
    print("Demo scene in the core, nothing kept")
    print(f"  draft {draft * 1e3:.0f} ms   fine {fine:.1f} s   ratio {fine / draft:.0f}")
    print(f"  all kept {kept * 1e3:.0f} ms, {draft / kept:.0f} times quicker")


if __name__ == "__main__":
    scene_from(moved_scenes(1)[0])
    picture(quarry_pool(), "front", 400, {}, Keeper())
    drafts_at_the_server()
    march_against_bdf()
    grades_of_the_demo()
    shapes(timed)
    heat(timed)
    water(timed)
    drafts_against_fine()
    staging()
    pour_day()
    print("The loop", flush=True)
    for more in ("looping.py", "looking.py"):
        subprocess.run([sys.executable, str(ROOT / "benchmarks" / more)], check=True, cwd=ROOT)
    print("The page in a browser, warm")
    the_page()
