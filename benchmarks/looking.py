"""The look: an eye that moves, a dose that is dragged, a still as a job draws it; rays a second, beside bare rays."""

from __future__ import annotations

import json
import os
import resource
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "server"), str(ROOT)]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gondola_server.settings")
os.environ.setdefault("GONDOLA_SECRET_KEY", "only-for-benchmarks")

import numpy as np
from embreex.mesh_construction import TriangleMesh
from embreex.rtcore_scene import EmbreeScene
from numba import njit

from gondola_core.answers.kept import Keeper
from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.studies.stills import still
from gondola_core.views.look.bvh import nearest
from gondola_core.views.look.look import CLEARER, DRAFT, MOVING, Asked, drawn, lit_world
from gondola_core.views.look.stand import camera_of, usual_stand


def timed(work: Callable[[int], object], times: int) -> float:
    """Median milliseconds of some runs, the first one not counted."""
    work(0)
    taken = []
    for number in range(1, times + 1):
        began = time.perf_counter()
        work(number)
        taken.append(1000 * (time.perf_counter() - began))
    return statistics.median(taken)


@njit(nogil=True)
def cast(tree, origins, ways, out, stack):
    """Nearest distance of each ray."""
    for k in range(len(origins)):
        origin = (origins[k, 0], origins[k, 1], origins[k, 2])
        out[k] = nearest(tree, origin, (ways[k, 0], ways[k, 1], ways[k, 2]), 1e30, stack)[0]


def rays() -> None:
    """The same rays from the same eye into the same triangles: bare, and followed to their end."""
    scene = quarry_pool()
    stand, keeper = usual_stand(scene), Keeper()
    asked = Asked(stand, 640, 400, DRAFT)
    world, _ = lit_world(scene, asked, {}, keeper)
    camera = camera_of(scene, stand, 1.6)
    v, u = np.meshgrid((np.arange(400) + 0.5) / 200 - 1, (np.arange(640) + 0.5) / 320 - 1, indexing="ij")
    ways = camera[1] + u[..., None] * camera[2] + v[..., None] * camera[3]
    ways = (ways / np.linalg.norm(ways, axis=2, keepdims=True)).reshape(-1, 3)
    origins = np.tile(camera[0], (len(ways), 1))
    packed = world.bodies.tree.triangles
    corners = np.stack([packed[:, :3], packed[:, :3] + packed[:, 3:6], packed[:, :3] + packed[:, 6:]], axis=1)
    embree = EmbreeScene()
    TriangleMesh(embree, corners.astype(np.float32))
    singles = origins.astype(np.float32), ways.astype(np.float32)
    out, stack = np.zeros(len(ways)), np.zeros(64, np.int64)
    bare = timed(lambda _: embree.run(*singles), 5)
    own = timed(lambda _: cast(world.bodies.tree, origins, ways, out, stack), 5)
    whole = timed(lambda _: drawn(world, camera, asked), 5)
    met = np.asarray(embree.run(*singles)) >= 0
    print(f"  {len(packed)} triangles, {len(ways)} rays; they agree on {np.mean(met == (out < 1e29)):.5f} of them")
    for name, took in (("embreex, bare, one thread", bare), ("own tree, bare, one thread", own),
                       ("followed to their end, two threads", whole)):
        print(f"  {name:36}{len(ways) / took / 1000:6.2f} M rays/s   {took / bare:5.1f} x embreex")


def at_the_server() -> None:
    """What a page waits for, over HTTP."""
    import django

    django.setup()
    from django.contrib.auth.models import User
    from django.test import Client
    from django.test.utils import setup_databases, setup_test_environment, teardown_databases

    setup_test_environment()
    databases = setup_databases(verbosity=0, interactive=False)
    client = Client()
    client.force_login(User.objects.create_user("bench"))
    document, stand = quarry_pool().model_dump(mode="json"), usual_stand(quarry_pool()).model_dump(mode="json")

    def ask(query: str, dose: float, turn: float) -> None:
        document["pours"][0]["doses"][0]["dose_drops_per_100g"] = dose
        body = json.dumps({"scene": document, "stand": {**stand, "azimuth_deg": turn}})
        answer = client.post(f"/api/look?{query}", body, content_type="application/json")
        assert answer.status_code == 200, answer.content

    rows = (
        ("the eye moved, 640 x 400", 500, "care=draft&width=640&height=400", 0.0, 3.0),
        ("a dose dragged, 320 x 200", 500, "care=moving&width=320&height=200", 0.01, 0.0),
        ("let go, 640 x 400", 1200, "care=draft&width=640&height=400", 0.01, 0.0),
        ("cleared up, 800 x 500", 0, "care=clearer&width=800&height=500", 0.01, 0.0),
    )
    for name, most, query, dose, turn in rows:
        took = timed(lambda n, q=query, d=dose, t=turn: ask(q, 0.3 + d * n, t * n), 7)
        print(f"  {name:28}{took:8.0f} ms" + (f"   {took / most:5.2f} of what was asked" if most else ""))
    teardown_databases(databases, verbosity=0)


def stills() -> None:
    """Stills of 1600 x 1000 in 31 bands, from nothing, each in a process of its own."""
    for name in SAMPLES:
        one = [sys.executable, str(Path(__file__)), name]
        took, most = map(float, subprocess.run(one, check=True, capture_output=True, text=True).stdout.split())
        print(f"  still of {name:24}{took:6.1f} s   {took / 40:5.2f} of what was asked"
              f"   {most:5.0f} MB   {most / 600:5.2f} of what was asked")


def one_still(name: str) -> None:
    """Seconds that a still takes, and the most memory of a process that draws it, as a worker would."""
    scene = SAMPLES[name]()
    began = time.perf_counter()
    still(scene, usual_stand(scene), (1600, 1000), lambda _: None)
    print(time.perf_counter() - began, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024)


def main() -> None:
    scene = quarry_pool()
    for care in (MOVING, DRAFT, CLEARER):
        lit_world(scene, Asked(usual_stand(scene), 64, 40, care), {}, Keeper())
    print("The look")
    rays()
    at_the_server()
    stills()


if __name__ == "__main__":
    one_still(sys.argv[1]) if len(sys.argv) > 1 else main()
