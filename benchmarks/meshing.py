"""Shapes: spans, volumes and traps of a scene of meshes, against a voxeliser and exact booleans."""

from __future__ import annotations

import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import manifold3d
import numpy as np
import trimesh

from gondola_core.samples import quarry_pool
from gondola_core.scene import Figure, MeshSolid, Place, Scene
from gondola_core.shape import figure_mesh, mesh_spans
from gondola_core.shape.bodies.bringing import MOST_TRIANGLES, bring_mesh
from gondola_core.shape.bodies.mesh import TriMesh
from gondola_core.shape.columns import column_spans, free_volume_ml, tank_columns
from gondola_core.shape.floods import free_spans, wet_and_trapped_ml
from gondola_core.shape.pockets import air_traps, dry_basins

Timer = Callable[..., float]


def timed_once(work: Callable[[], float]) -> tuple[float, float]:
    """Seconds of one run, and what it gave."""
    start = time.perf_counter()
    found = work()
    return time.perf_counter() - start, found


def lumpy(seed: int) -> TriMesh:
    """A closed lump of 20,480 triangles, never the same twice."""
    ball = trimesh.creation.icosphere(5, 9.0)
    points = np.array(ball.vertices)
    shift = np.random.default_rng(seed).uniform(0, 6, 3)
    swell = 1 + 0.25 * np.sin(0.6 * points + shift).sum(axis=1) / 3
    return TriMesh(points * swell[:, None], np.array(ball.faces, dtype=np.int32))


def scene_of_meshes() -> tuple[Scene, dict[str, TriMesh]]:
    scene = quarry_pool()
    meshes = {f"lump{n}": lumpy(n) for n in range(8)}
    figures = [
        Figure(
            id=f"lump-{n}", name=f"lump {n}", solids=[MeshSolid(kind="mesh", mesh_id=f"lump{n}")],
            place=Place(
                x_mm=25 + 43 * (n % 4), behind_mm=32 + 46 * (n // 4), height_mm=60 + 7 * (n % 3)
            ),
            tilt_deg=11.0 * n, material=scene.figures[0].material, paint_srgb="#808080",
        )
        for n in range(8)
    ]
    return scene.model_copy(update={"figures": figures}), meshes


def shapes(timed: Timer) -> None:
    scene, meshes = scene_of_meshes()

    def ours() -> None:
        spans = column_spans(scene.tank, scene.bed, scene.figures, meshes)
        free = free_spans(spans)
        wet_and_trapped_ml(free, spans.area_mm2, np.linspace(0, 120, 20))
        air_traps(scene, spans, free)
        dry_basins(scene, spans, free)

    whole = timed(ours, 7)
    print("Eight meshes of 20,480 triangles in the demo tank, 1 mm columns")
    print(f"  spans, 20 volumes, traps and basins {whole * 1e3:.0f} ms   (to reach: 150 ms)")

    bodies = [figure_mesh(figure, meshes) for figure in scene.figures]

    def figures_only() -> None:
        for body in bodies:
            mesh_spans(body, columns.x_mm, columns.y_mm)

    def voxels(pitch: float) -> float:
        total = 0.0
        for body in bodies:
            grid = trimesh.Trimesh(body.vertices, body.faces, process=False).voxelized(pitch).fill()
            total += float(grid.volume)
        return total

    columns = tank_columns(scene.tank)
    spans_time = timed(figures_only, 7)
    met = {pitch: timed_once(lambda p=pitch: voxels(p)) for pitch in (1.0, 0.25)}
    solids = [
        manifold3d.Manifold(
            manifold3d.Mesh(body.vertices.astype(np.float32), body.faces.astype(np.uint32))
        )
        for body in bodies
    ]
    exact = sum(solid.volume() for solid in solids)
    flat = scene.bed.model_copy(update={"heights_mm": [[0.0, 0.0], [0.0, 0.0]]})
    alone = column_spans(scene.tank, flat, scene.figures, meshes)
    own = float((alone.high - alone.low)[alone.what >= 2].sum() * alone.area_mm2)
    union = float(manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add).volume())
    print(f"  spans of the meshes alone {spans_time * 1e3:.1f} ms, volume off by {own / union - 1:+.2%}")
    for pitch, (taken, filled) in met.items():
        print(f"  trimesh voxeliser at {pitch:g} mm {taken * 1e3:.0f} ms, ratio {taken / spans_time:.0f}, "
              f"volume off by {filled / exact - 1:+.1%}")
    print("  (to reach: 100 times at better accuracy: the voxeliser is worse at every pitch shown)")

    levels = np.linspace(30, 118, 20)

    def by_booleans() -> list[float]:
        everything = manifold3d.Manifold.batch_boolean(solids, manifold3d.OpType.Add)
        volumes = []
        for level in levels:
            box = manifold3d.Manifold.cube([180.0, 110.0, float(level)])
            volumes.append((box - everything).volume())
        return volumes

    start = time.perf_counter()
    theirs = np.array(by_booleans()) / 1000
    boolean_time = time.perf_counter() - start
    found = free_volume_ml(alone, levels)
    worst = float(np.abs(found / theirs - 1).max())
    ours_levels = timed(lambda: free_volume_ml(
        column_spans(scene.tank, flat, scene.figures, meshes), levels), 7)
    print(f"  exact booleans at 20 levels {boolean_time * 1e3:.0f} ms, ratio "
          f"{boolean_time / ours_levels:.0f} (to reach: 20), free volume off by {worst:.3%} at most "
          "(to reach: 0.2 %)")

    with tempfile.NamedTemporaryFile(suffix=".stl") as file:
        file.write(trimesh.creation.uv_sphere(20.0, (355, 356)).export(file_type="stl"))
        file.flush()
        told = subprocess.run(
            [sys.executable, __file__, file.name], check=True, capture_output=True, text=True
        )
    print(told.stdout, end="")


def _peak_mb() -> float:
    lines = Path("/proc/self/status").read_text().splitlines()
    return next(int(line.split()[1]) for line in lines if line.startswith("VmHWM")) / 1024


def large_stl() -> None:
    """In a process of its own, so that its memory can be told."""
    triangles = 500_000
    content = Path(sys.argv[1]).read_bytes()
    Path("/proc/self/clear_refs").write_text("5")  # else the parent's own peak is told
    before = _peak_mb()
    start = time.perf_counter()
    brought = bring_mesh(content, "stl")
    taken = time.perf_counter() - start
    peak = _peak_mb()
    print(f"  an STL of {brought.triangles_count:,} triangles brought in {taken:.1f} s   (to reach: "
          f"{triangles:,} in 3 s), memory {before:.0f} MB before, {peak:.0f} MB at most (to reach: 600); "
          f"more than {MOST_TRIANGLES:,} are refused")


if __name__ == "__main__":
    large_stl()
