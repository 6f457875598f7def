"""What an eye would miss or be fooled by: where things seem to be, what is mirrored, what blurs, where a line shows."""

from __future__ import annotations

from dataclasses import dataclass
from math import asin, cos, degrees, radians, sin, sqrt
from typing import Literal

import numpy as np

from ...answers.bodies import BODIES
from ...answers.book import Book
from ...scene import Scene
from ...tint import water_of
from ...tint.attenuation import Water
from ...tint.sights import contrast_left
from ...units import MM
from ...words import Words, words
from .block import block_of, is_hull
from .bubbles_drawn import crossing
from .optics import blur_mm, mirrored
from .stand import Stand, eye_place
from .world import EDGE, KIND, PAINTED, SLOPE, Array, Block

FaceName = Literal["front", "right", "back", "left", "top", "side"]
LOST_PAIRS = 2.9
"""Pairs of lines finer than so many standard deviations of a blur are lost. Source: own_appearance"""
READ_CONTRAST = 0.1
"""Contrast of a figure under which its shape is no longer read. Source: assumed"""
FARTHEST_READ_MM = 1500.0
"""Farther than any tank is deep."""
SANDED_AT_MM = 30.0
"""Behind a sanded face: where it is told what runs together."""
EYES_MM = 63.0
"""Between a person's eyes. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Seeming:
    """Where one figure seems to be from an eye, through the face that shows it.

    behind_mm, seems_mm   its own distance behind that face, and how far behind it seems to two eyes
    mirrored_in           faces in which it is seen a second time
    reads_to_mm           distance behind the glass at which its shape is still read in this water
    blur_mm               standard deviation of the blur of a sanded face; 0 for a polished one
    words                 the whole in sentences
    """

    figure_id: str
    face: FaceName
    behind_mm: float
    seems_mm: float
    mirrored_in: list[FaceName]
    reads_to_mm: float
    blur_mm: float
    words: list[Words]


@dataclass(frozen=True, slots=True, kw_only=True)
class LineMirror:
    """A layer line as a thin mirror: whether it shows to the eye, and to which eyes it would."""

    pour_number: int
    shows: bool
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class Fooled:
    """What is not as it seems, from an eye: figures, faces, layer lines, the top, and what the picture leaves out."""

    figures: list[Seeming]
    faces: list[Words]
    lines: list[LineMirror]
    top: list[Words]
    limits: list[Words]


def fooled(book: Book, stand: Stand) -> Fooled:
    """All of it for an eye. Raises GondolaError where the eye cannot stand so."""
    scene = book.scene
    block, eye = block_of(scene), eye_place(scene, stand)
    bodies, water = book.ask(BODIES), water_of(scene)
    figures = [
        _seeming(scene, block, eye, number, 0.5 * (body.least + body.most), water)
        for number, body in enumerate(bodies)
    ]
    return Fooled(
        figures=figures, faces=_faces(scene, block, eye), lines=_lines(scene, block, eye, stand),
        top=_top(scene, float(eye[2])), limits=[words("look.hull")] if is_hull(scene) else [],
    )


def seems_behind(eye: Array, place: Array, normal: Array, off: float, index: float) -> float:
    """How far behind a face two eyes see a thing: where their rays, drawn on unbent, come nearest [mm].

    The eyes stand level, EYES_MM apart, square to the way to the thing.
    """
    to_thing = place - eye
    side = np.cross(to_thing, [0.0, 0.0, 1.0])
    long = float(np.linalg.norm(side))
    side = side / long if long > 1e-9 else np.array([1.0, 0.0, 0.0])
    rays = []
    for sign in (-0.5, 0.5):
        one = eye + sign * EYES_MM * side
        at = np.array(crossing(tuple(one), tuple(place), tuple(normal), off, index))
        rays.append((one, (at - one) / np.linalg.norm(at - one)))
    (a, u), (b, v) = rays
    apart, turned = b - a, float(u @ v)
    s = float((apart @ u - turned * (apart @ v)) / (1 - turned**2))
    t = float((turned * (apart @ u) - apart @ v) / (1 - turned**2))
    seen = 0.5 * (a + s * u + b + t * v)
    return off - float(seen @ normal)


def names_of(block: Block) -> list[FaceName]:
    """What each face is called by where it faces; slanted ones are sides."""
    found: list[FaceName] = []
    for x, y, z, _ in block.planes:
        squarely: list[tuple[FaceName, float]] = [("right", x), ("left", -x), ("back", y), ("front", -y), ("top", z)]
        name, most = max(squarely, key=lambda one: one[1])
        found.append(name if most > cos(radians(25.0)) else "side")
    return found


def _seeming(scene: Scene, block: Block, eye: Array, number: int, middle: Array, water: Water) -> Seeming:
    figure = scene.figures[number]
    names, index = names_of(block), block.index_of_refraction
    shown = _shown_by(block, eye, middle)
    face = max(shown, key=lambda one: _squarely(block, eye, one)) if shown else 0
    normal, off = block.planes[face, :3], float(block.planes[face, 3])
    behind = off - float(normal @ middle)
    seems = seems_behind(eye, middle, normal, off, index)
    mirrors = sorted({names[one] for one in _mirrors(block, eye, middle, face)})
    blur = blur_mm(behind, float(block.finish[face, SLOPE]), index)
    depth = max(0.0, scene.tank.fill_height_mm - float(middle[2]))
    reads = _reads_to(water, depth)
    said = [words(
        "look.seems", name=figure.name, face=words(f"look.{names[face]}"), behind=behind, seems=seems,
    )]
    said += [words("look.doubled", name=figure.name, face=words(f"look.{one}")) for one in mirrors]
    if blur > 0:
        said.append(words("look.blurred", lost=LOST_PAIRS * blur, behind=behind))
    slope = top_slope(scene)
    if slope > 0:
        said.append(words("look.ripples", name=figure.name, depth=depth, shift=ripple_shift_mm(depth, slope, index)))
    key = "reads_all" if reads > scene.tank.inner_behind_mm else "reads" if reads > behind else "reads_no_more"
    said.append(words(f"look.{key}", name=figure.name, reads=reads))
    return Seeming(
        figure_id=figure.id, face=names[face], behind_mm=round(behind, 1), seems_mm=round(seems, 1),
        mirrored_in=mirrors, reads_to_mm=round(reads, 1), blur_mm=round(blur, 3), words=said,
    )


def _squarely(block: Block, eye: Array, face: int) -> float:
    """How squarely an eye looks at a face: distance before it over distance from its foot."""
    x, y, z = block.inside
    way = eye - np.array([x, y, z])
    return float(block.planes[face, :3] @ way / np.linalg.norm(way))


def _shown_by(block: Block, eye: Array, place: Array) -> list[int]:
    """Clear faces through which an eye sees a place."""
    return [
        face for face in range(len(block.planes))
        if block.finish[face, KIND] != PAINTED and _passes(block, eye, place, face) is not None
    ]


def _passes(block: Block, eye: Array, place: Array, face: int) -> Array | None:
    """Where the ray from an eye to a place passes a face; None where it would pass beside it."""
    normal, off = block.planes[face, :3], float(block.planes[face, 3])
    if float(normal @ eye) - off <= 1.0:
        return None
    at = np.array(crossing(tuple(eye), tuple(place), tuple(normal), off, block.index_of_refraction))
    return at if _on_face(block, face, at) else None


def _on_face(block: Block, face: int, place: Array) -> bool:
    """True if a place of a face's plane lies within the face."""
    others = np.delete(block.planes, face, axis=0)
    return bool((others[:, :3] @ place - others[:, 3] <= 1e-6).all())


def _mirrors(block: Block, eye: Array, place: Array, through: int) -> list[int]:
    """Faces in which a place is seen again through the same face: its image lies in sight, and the mirror is met."""
    found = []
    for face in range(len(block.planes)):
        if face == through or block.finish[face, KIND] == PAINTED or block.finish[face, SLOPE] > 0:
            continue
        normal, off = block.planes[face, :3], float(block.planes[face, 3])
        image = place + 2 * (off - float(normal @ place)) * normal
        at = _passes(block, eye, image, through)
        if at is None:
            continue
        way = image - at
        toward = float(normal @ way)
        if toward <= 0:
            continue
        share = (off - float(normal @ at)) / toward
        share_mirrored, _ = mirrored(toward / float(np.linalg.norm(way)), block.index_of_refraction)
        if 0 < share < 1 and share_mirrored == 1.0 and _on_face(block, face, at + share * way):
            found.append(face)
    return found


def _reads_to(water: Water, depth_mm: float) -> float:
    """Distance behind the glass at which a figure's contrast at a depth falls to what is still read [mm].

    Beyond the back wall it is told as if the water went on, in the light of that wall.
    """
    behind = np.linspace(0.0, FARTHEST_READ_MM, 600)
    depth = np.full_like(behind, depth_mm * MM)
    left = contrast_left(
        water.light_at(depth, np.minimum(behind * MM, water.behind)), water.sight(depth, behind * MM)
    )
    under = np.flatnonzero(left < READ_CONTRAST)
    return float(behind[under[0]]) if len(under) else FARTHEST_READ_MM


def _faces(scene: Scene, block: Block, eye: Array) -> list[Words]:
    """Of each side: mirror or window from here, and from where that changes; what a sanded one hides."""
    names, index = names_of(block), block.index_of_refraction
    if (block.finish[:-2, EDGE + 4 :] != 0).any():
        return [words("look.round")]
    before = [face for face in range(len(block.planes) - 2) if _squarely(block, eye, face) > 0
              and block.planes[face, :3] @ eye > block.planes[face, 3]]
    if not before:
        return []
    front = max(before, key=lambda face: _squarely(block, eye, face))
    said = []
    for face in range(len(block.planes) - 2):
        if face == front or block.finish[face, KIND] == PAINTED:
            continue
        slope = float(block.finish[face, SLOPE])
        if slope > 0:
            said.append(words("look.sanded", face=words(f"look.{names[face]}"), at=SANDED_AT_MM,
                              lost=LOST_PAIRS * blur_mm(SANDED_AT_MM, slope, index)))
            continue
        opens = opens_at_deg(block.planes[front, :3], block.planes[face, :3], index)
        key = "look.always_mirror" if opens is None else "look.window" if opens <= 0 else "look.opens"
        said.append(words(key, face=words(f"look.{names[face]}"), through=words(f"look.{names[front]}"),
                          opens=max(opens or 0.0, 0.0)))
    return list({one.said(): one for one in said}.values())


def opens_at_deg(through: Array, face: Array, index: float) -> float | None:
    """Angle outside of the face that is looked through, beyond which another one is no mirror; None: always one.

    A ray inside, i off the normal, meets a face that stands at an angle w to it at w - i or w + i; it is let out
    within asin(1/n) of that face's normal. 0 for a window from straight on. Source: own_appearance
    """
    apart = float(np.arccos(np.clip(-through @ face, -1.0, 1.0)))
    critical = asin(1.0 / index)
    inside = apart - critical
    if inside <= 0:
        return 0.0
    sine = index * sin(inside)
    return None if sine >= 1.0 or inside >= critical else degrees(asin(sine))


def _lines(scene: Scene, block: Block, eye: Array, stand: Stand) -> list[LineMirror]:
    """Layer lines that mirror from this height, and the heights from which each would.

        an eye D before the front, within D n sqrt(2 dn/n) of the line's level, grazes it under the critical angle
    Source: fresnel1823 with own_appearance
    """
    found = []
    index, away = block.index_of_refraction, stand.distance_mm - 0.5 * scene.tank.inner_behind_mm
    for number, (height, step) in enumerate(block.seams, start=1):
        reach = away * index * sqrt(2.0 * step / index)
        near = abs(float(eye[2]) - float(height)) < reach
        said = words("look.line_seen" if near else "look.line_hidden", line=number, level=float(height), reach=reach)
        found.append(LineMirror(pour_number=number, shows=near, words=said))
    return found


def _top(scene: Scene, eye_mm: float) -> list[Words]:
    """What ripples leave as it is, and what the calm top mirrors from below."""
    if top_slope(scene) > 0:
        return [words("look.ripples_front")]
    return [words("look.calm_above" if eye_mm > scene.tank.fill_height_mm else "look.calm_below")]


def top_slope(scene: Scene) -> float:
    """Steepest slope of the ripples that are asked for: 2 pi A/L; 0 for a calm top."""
    top = scene.finish.top
    return float(2 * np.pi * top.ripple_mm / top.ripple_length_mm)


def ripple_shift_mm(depth_mm: float, slope: float, index: float) -> float:
    """How far a slope of the top shifts what lies so deep, seen straight down: z s (1 - 1/n).

    Source: own_appearance

    >>> round(ripple_shift_mm(60.0, 0.05, 1.52), 1)
    1.0
    """
    return depth_mm * slope * (1 - 1 / index)
