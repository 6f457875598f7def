"""The march at full size against SciPy's stiff solver and FiPy, and against this machine's own bound."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from numba import njit
from reference_march import reference_peak

from gondola_core.cure.cells import CellGeometry, whole_box
from gondola_core.cure.kinetics import cure_rate
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import Marched, Room, TimedPour, Tolerance, march_pours
from gondola_core.materials import load_library

Timer = Callable[..., float]
LIBRARY = load_library()
RESIN = LIBRARY.resins["deep"]
AROUND = Surroundings(
    wall=LIBRARY.solids["acrylic"], wall_thickness=0.003, base=LIBRARY.solids["wood"],
    base_thickness=0.018,
)
TOPS = [0.08 / 3 * n for n in (1, 2, 3)]
POURS = [TimedPour(start=24 * 3600.0 * n, mix_c=23.0, resin=0) for n in range(3)]
ROOM = np.full(4, 23.0)


def box(cell: float) -> CellGeometry:
    return whole_box((0.15, 0.10), TOPS, cell, 4)


def march(cell: float, step_k: float, hours: float = 72.0, pours: int = 3) -> Marched:
    end = hours * 3600.0
    return march_pours(
        whole_box((0.15, 0.10), TOPS[:pours], cell, 4), AROUND, [RESIN], POURS[:pours], Room(ROOM, end), end,
        Tolerance(temperature_k=step_k, degree=step_k / 100),
    )


@njit(nogil=True, fastmath=True)
def _stencil(t, out, gx, gy, gz, ga, inverse, steps, width):  # type: ignore[no-untyped-def]
    """The bare seven-point stencil with stored conductances, vectorised as the march is."""
    p = width + 1
    n = t.shape[1] - 2 * p
    for _ in range(steps):
        for k in range(1, t.shape[0] - 1):
            here = t[k, p : p + n]
            o = out[k, p : p + n]
            right, left = t[k, p + 1 : p + 1 + n], t[k, p - 1 : p - 1 + n]
            back, front = t[k, p + width : p + width + n], t[k, p - width : p - width + n]
            above, below = t[k + 1, p : p + n], t[k - 1, p : p + n]
            gr, gl = gx[k, p : p + n], gx[k, p - 1 : p - 1 + n]
            gb, gf = gy[k, p : p + n], gy[k, p - width : p - width + n]
            gu, gd = gz[k, p : p + n], gz[k - 1, p : p + n]
            room, turn = ga[k, p : p + n], inverse[k, p : p + n]
            for i in range(n):
                o[i] = here[i] + turn[i] * (
                    gr[i] * (right[i] - here[i]) + gl[i] * (left[i] - here[i])
                    + gb[i] * (back[i] - here[i]) + gf[i] * (front[i] - here[i])
                    + gu[i] * (above[i] - here[i]) + gd[i] * (below[i] - here[i]) - room[i] * here[i]
                )
        t, out = out, t
    return t


def stencil_bound(shape: tuple[int, ...], timed: Timer, precision: type = np.float64) -> float:
    """Cell-steps a second of the bare stencil on a grid of this size."""
    levels, rows, cells = shape
    size = (levels + 2, (rows + 2) * (cells + 2))
    rng = np.random.default_rng(1)
    arrays = [rng.uniform(0.1, 0.2, size).astype(precision) for _ in range(7)]
    steps = 400
    taken = timed(lambda: _stencil(*arrays, steps, cells + 2), 5)
    return levels * rows * cells * steps / taken


def heat(timed: Timer) -> None:
    marches: list[Marched] = []
    ours = timed(lambda: marches.append(march(0.004, 0.05)), 3)
    made = marches[-1]
    cells = made.resin.size
    peak = float(np.nanmax(made.peak_c))
    exact = float(np.nanmax(march(0.004, 0.001).peak_c))
    rate = cells * made.stages / ours
    # cells fill up pour by pour: two thirds are there on average
    there = sum((n + 1) / 3 for n in range(3)) / 3
    bound = stencil_bound(made.resin.shape, timed)
    single = stencil_bound(made.resin.shape, timed, np.float32)
    print("March of 150 x 100 x 80 mm, 4 mm cells, three pours, 72 h, one thread")
    print(f"  {ours:.2f} s, {cells} cells, {made.steps} steps of {made.stages / made.steps:.0f} stages; "
          f"peak {peak:.3f} C, converged steps {exact:.3f} C (to reach: 0.1 K)")
    steps = round(72 * 3600 / 15.5)
    print(f"  {rate * there:.2e} cell-stages/s (levels not yet poured left out), bare stencil {bound:.2e}: "
          f"share {rate * there / bound:.2f}   (to reach: 0.33); of the stencil in single precision, "
          f"{single:.2e}, {rate * there / single:.2f}; an explicit march at its limit of 15.5 s would need "
          f"{cells * steps:.2e} cell-steps: {cells * steps / ours:.2e} of these a second, share "
          f"{cells * steps / ours / bound:.2f}")

    end = 24 * 3600.0
    first = timed(lambda: march(0.004, 0.05, 24.0, 1), 3)
    start = time.perf_counter()
    theirs, _, _ = reference_peak(
        whole_box((0.15, 0.10), TOPS[:1], 0.004, 4), AROUND, [RESIN], POURS[:1], 23.0, end, rtol=1e-4
    )
    bdf = time.perf_counter() - start
    print(f"  SciPy solve_ivp (BDF, sparse Jacobian), the first pour's 24 h on the same cells: {bdf:.1f} s "
          f"against {first:.3f} s, ratio {bdf / first:.0f}   (to reach: 60); its peak {theirs:.3f} C")
    fipy_step = _fipy_step()
    steps = 72 * 60
    whole = fipy_step * steps
    print(f"  FiPy, implicit, 60 s steps: {fipy_step:.3f} s a step measured over 12, {whole:.0f} s "
          f"extrapolated to 72 h, ratio {whole / ours:.0f}   (to reach: 200)")
    print("  cost against size and time")
    for cell, hours in ((0.008, 72.0), (0.0057, 72.0), (0.004, 72.0), (0.004, 36.0), (0.004, 18.0)):
        runs: list[Marched] = []
        taken = timed(lambda c=cell, h=hours, r=runs: r.append(march(c, 0.05, h, 3 if h > 48 else 1)), 3)
        work = runs[-1].resin.size * runs[-1].stages
        print(f"    {cell * 1e3:.1f} mm, {hours:.0f} h: {runs[-1].resin.size:6d} cells {taken:.3f} s, "
              f"{taken / work * 1e9:.2f} ns a cell and stage")


def _fipy_step() -> float:
    """One implicit step of the same heat and cure in FiPy, in a box of the same size."""
    import fipy

    mesh = fipy.Grid3D(nx=38, ny=25, nz=26, dx=0.004, dy=0.004, dz=0.004)
    warm = fipy.CellVariable(mesh=mesh, value=23.0, hasOld=True)
    warm.constrain(23.0, mesh.facesFront | mesh.facesBack)
    degree = np.zeros(mesh.numberOfCells)
    density, capacity = RESIN.density_g_ml * 1e3, RESIN.heat_capacity_j_kgk
    heat_of_cure = RESIN.heat_of_cure_j_g * 1e3
    source = fipy.CellVariable(mesh=mesh, value=0.0)
    equation = fipy.TransientTerm(coeff=density * capacity) == (
        fipy.DiffusionTerm(coeff=RESIN.conductivity_w_mk) + source
    )
    solver = fipy.LinearPCGSolver(tolerance=1e-8)
    taken = []
    for step in range(14):
        start = time.perf_counter()
        rate = cure_rate(degree, np.array(warm.value), RESIN)
        source.setValue(density * heat_of_cure * rate)
        warm.updateOld()
        equation.solve(var=warm, dt=60.0, solver=solver)
        degree = degree + 60.0 * rate
        if step >= 2:
            taken.append(time.perf_counter() - start)
    return float(np.median(taken))


def drafts_against_fine(count: int = 50) -> None:
    """Random scenes below runaway: how far the draft's peaks are from the fine march's."""
    from gondola_core.answers.kept import Keeper
    from gondola_core.evaluate import DRAFT, FINE, evaluate
    from gondola_core.samples import quarry_pool

    rng = np.random.default_rng(7)
    gaps: list[float] = []
    told: list[float] = []
    made = 0
    while made < count:
        document = quarry_pool()
        fill = float(rng.uniform(30, 90))
        pours = int(rng.integers(1, 4))
        tank = document.tank.model_copy(update={
            "inner_width_mm": float(rng.uniform(60, 220)), "inner_behind_mm": float(rng.uniform(60, 140)),
            "fill_height_mm": fill, "wall_height_mm": fill + 14,
        })
        tops = [round(fill * (1 - (n + 1) / pours), 1) for n in range(pours)]
        tops[-1] = 0.0
        room = float(rng.uniform(18, 24))
        scene = document.model_copy(update={
            "tank": tank, "figures": [],
            "bed": document.bed.model_copy(update={"heights_mm": [[0.1 * fill, 0.35 * fill]] * 2}),
            "brief": document.brief.model_copy(update={
                "room": document.brief.room.model_copy(update={"day_c": room, "night_c": room - 2}),
            }),
            "pours": [
                document.pours[0].model_copy(update={
                    "id": f"p{n}", "top_depth_mm": top, "wait_h": 26.0 if n else 0.0, "mix_c": room,
                })
                for n, top in enumerate(tops)
            ],
        })
        draft = evaluate(scene, DRAFT, Keeper())
        if draft.whole.hottest_c is None or draft.whole.hottest_c > 70:
            continue
        fine = evaluate(scene, FINE, Keeper())
        made += 1
        for a, b in zip(draft.pours, fine.pours, strict=True):
            if a.heat.cure and b.heat.cure:
                gaps.append(a.heat.cure.peak_c - b.heat.cure.peak_c)
        told.append(fine.march.peak_error_k or 0.0)
    far = np.abs(gaps)
    print(f"Draft against fine over {count} random scenes below runaway: peak off by {far.max():.2f} K at "
          f"most, {np.percentile(far, 95):.2f} K at 95 %, mean {np.mean(gaps):+.2f} K (to reach: 1.5); "
          f"fine march's own error estimate {max(told):.2f} K at most")
