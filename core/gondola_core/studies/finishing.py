"""The finish of a scene: when and how it comes out, its faces, its top, and what comes after, step by step."""

from __future__ import annotations

from dataclasses import dataclass

from ..answers.bodies import BODIES
from ..answers.book import Book
from ..answers.kept import Keeper
from ..bench.recipes import load_recipes
from ..evaluate import DRAFT, KEEPER, evaluate
from ..finish.faces import FaceSchools, face_schools
from ..finish.fit import CavityFit, cavity_fit
from ..finish.letting_go import Release, letting_go
from ..finish.top import WHITE_SHARE, TopWork, top_work
from ..outcome import Outcome
from ..scene import Scene
from ..shape import Meshes
from ..words import Words, words

LINE_MM = 0.6
"""Depth of lines that are carved into the top. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class FinishStep:
    """One thing to do after the last pour; at_h from the first pour, None where that is not told."""

    id: str
    title: Words
    under: Words
    caution: Words | None
    at_h: float | None
    minutes: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Finishing:
    """All of it. lip_mm: how high the resin stands at the walls."""

    demould_at: str | None
    demould_h: float | None
    full_cure_d: float | None
    lip_mm: float
    lip_mm_long: float
    releases: list[Release]
    faces: FaceSchools
    top: TopWork
    fits: list[CavityFit]
    steps: list[FinishStep]


def finishing(scene: Scene, meshes: Meshes | None = None, keeper: Keeper = KEEPER) -> Finishing:
    """The finish of a scene as it stands. Source: assumed, but for what its parts cite"""
    outcome = evaluate(scene, DRAFT, keeper, None, meshes)
    tank = scene.tank
    width, behind, fill = outcome.whole.outer_width_mm, outcome.whole.outer_behind_mm, tank.fill_height_mm
    perimeter = 2 * (tank.inner_width_mm + tank.inner_behind_mm)
    releases = letting_go(tank, max(width, behind), fill)
    recipes = load_recipes()
    faces = face_schools(
        0.0 if tank.walls_stay else perimeter * fill / 100, tank.wall.material.id, scene.finish.sand_to_grit,
        recipes["edge_coat"].thickness_mm,
    )
    surface = outcome.pours[-1].fill.free_surface_cm2
    white = scene.finish.top.white_fraction or WHITE_SHARE
    top = top_work(surface, scene.brief.room.mean_c, recipes["ripple_gel"].thickness_mm, white)
    return Finishing(
        demould_at=outcome.whole.demould_at, demould_h=outcome.whole.demould_h, full_cure_d=outcome.whole.full_cure_d,
        lip_mm=round(outcome.dam.lip_mm, 2), lip_mm_long=round(perimeter, 1), releases=releases, faces=faces, top=top,
        fits=_fits(scene, Book(scene, DRAFT, keeper, meshes)), steps=_steps(scene, outcome, releases, faces, top),
    )


def _fits(scene: Scene, book: Book) -> list[CavityFit]:
    found = []
    for figure, body in zip(scene.figures, book.ask(BODIES), strict=True):
        if figure.liner is None:
            continue
        size = float((body.most - body.least).max())
        resin = max((scene.resin_of(pour) for pour in scene.pours), key=lambda one: one.shrink_fraction)
        found.append(cavity_fit(figure.id, figure.name, figure.liner.gap_mm, size, resin))
    return found


def _steps(
    scene: Scene, outcome: Outcome, releases: list[Release], faces: FaceSchools, top: TopWork
) -> list[FinishStep]:
    """In the order of work."""
    out, cured = outcome.whole.demould_h, outcome.whole.full_cure_d
    hard_h = None if cured is None else cured * 24

    def step(
        id_: str, at_h: float | None, minutes: float | None = None, caution: str = "", **values: object
    ) -> FinishStep:
        return FinishStep(
            id=id_, title=words(f"finish.{id_}"), under=words(f"finish.{id_}_under", **values), at_h=at_h,
            caution=words(f"finish.{caution}") if caution else None, minutes=minutes,
        )

    found = [
        FinishStep(
            id=one.id, title=one.title, under=one.words, caution=one.caution, at_h=out, minutes=None,
        )
        for one in releases
    ]
    if not scene.tank.walls_stay:
        found.append(step("lip", out, 10.0, "knife_caution", lip=outcome.dam.lip_mm))
        if scene.finish.edge_coat:
            found.append(step("coat", hard_h, faces.coat_min, "gloves_caution", volume=faces.coat_ml,
                              other=faces.sanding_min, waits=faces.coat_waits_h))
        else:
            found.append(step("sand", hard_h, faces.sanding_min, "dust_caution", first=faces.from_grit,
                              last=scene.finish.sand_to_grit, other=faces.coat_min, volume=faces.coat_ml))
    found += [
        step("ripples", out, None, "", volume=top.ripple_ml, patches=top.patches_count, patch=top.patch_cm2,
             open=top.open_min, clear=top.clear_h),
        step("white", out, None, "", volume=top.white_ml, clear=top.white_clear_h),
        step("lines", out, None, "knife_caution", deep=LINE_MM, volume=top.area_cm2 * LINE_MM / 10),
    ]
    if any(figure.lamp is not None for figure in scene.figures):
        found.append(step("lamp", out, 5.0, "mains_caution"))
    found.append(step("case", hard_h, None, "", days=cured or 0.0))
    return found
