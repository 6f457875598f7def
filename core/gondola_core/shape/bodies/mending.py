"""Mends a mesh where that is safe, and says what was done or why not."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components
from scipy.spatial import cKDTree

from ...errors import GondolaError
from ...words import Words, words
from .estimated import LEAST_CLEAR, estimated_solid
from .lids import CannotClose, close_holes
from .mesh import Colours, TriMesh, body_volume, mesh_area, mesh_volume

Array = NDArray[np.float64]
Whole = NDArray[np.int64]

WELD = 1e-6
"""Corners closer than this share of the size are one. Source: own_geometry"""
ROW = 2_000_003
"""A prime over twice the welding cells along a side: one number for each cell."""
MIX = 4_294_967_291
"""A large prime that mixes a triangle's corners into one number."""
LEAST_SOLID = 1e-6
"""Share of its box that a mesh has to enclose to be a body. Source: assumed"""
LARGEST_GAP_MM = 0.05
"""Corners on torn edges further apart than this are not sewn. Source: assumed"""
GAP_OF_EDGE, SHORT_EDGES = 0.2, 0.05
"""Nor further than this share of the shorter edges, those below that quantile, so that no detail falls
together. Source: assumed"""
LEAST_SHARED = 0.002
"""Share of the volume from which an overlap of its parts is said. Source: assumed"""
UNITS_MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4}


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimate:
    """The least and the most that a guessed solid may be, as bodies in its own frame."""

    least_ml: float
    most_ml: float
    less: TriMesh
    more: TriMesh

    @property
    def spread_ml(self) -> float:
        """Half of what lies between the least and the most."""
        return 0.5 * (self.most_ml - self.least_ml)


@dataclass(frozen=True, slots=True, kw_only=True)
class Brought:
    """A mesh that can be used: standing on its lowest point, over its own middle.

    words     what was done to it, a sentence each
    estimate  how far a solid that had to be guessed may be off; None for a mesh that closes
    """

    mesh: TriMesh
    volume_ml: float
    size_mm: list[float]
    triangles_count: int
    words: list[Words]
    estimate: Estimate | None = None


def mend(vertices: Array, faces: Whole, colours: Colours | None = None, unit: str = "mm") -> Brought:
    """Weld, turn and close a mesh where that is safe, or guess its solid; GondolaError where it has no inside.

    unit  in which sizes are said

    A mesh is taken as closed when every edge is used as often one way as the other: then winding
    numbers are whole everywhere, and no vertical line is left unbalanced.
    """
    vertices, faces, kept = _welded(vertices, faces)
    colours = None if colours is None else colours[kept]
    if len(faces) < 4:
        raise GondolaError("This mesh is an open surface with no inside; give it thickness.")
    try:
        vertices, faces, colours, said = _closed(vertices, faces, colours)
    except _Open as left:
        return _estimated(left.vertices, left.faces, left.colours, left.why, unit)
    faces, flipped = _outward_shells(vertices, faces)
    if flipped:
        said.append(words("mending.inside_out"))
    mesh = TriMesh(vertices, faces.astype(np.int32))
    volume, shared = body_volume(mesh)
    if shared > LEAST_SHARED * volume:
        said.append(words("mending.shared", shared=shared / 1000))
    size = vertices.max(axis=0) - vertices.min(axis=0)
    if volume < LEAST_SOLID * float(np.prod(np.maximum(size, 1e-9))):
        raise GondolaError(
            "This mesh is an open surface with no inside; give it thickness, or give its volume "
            "with a simple solid."
        )
    middle = 0.5 * (vertices.max(axis=0) + vertices.min(axis=0))
    stood = vertices - [middle[0], middle[1], vertices[:, 2].min()]
    return Brought(
        mesh=TriMesh(stood, mesh.faces, colours), volume_ml=volume / 1000,
        size_mm=[round(float(side), 2) for side in size], triangles_count=len(faces), words=said,
    )


class _Open(Exception):
    """A mesh that nothing here closes, as far as it was mended, and why."""

    def __init__(self, vertices: Array, faces: Whole, colours: Colours | None, why: CannotClose) -> None:
        super().__init__(str(why))
        self.vertices, self.faces, self.colours, self.why = vertices, faces, colours, why


def _closed(
    vertices: Array, faces: Whole, colours: Colours | None
) -> tuple[Array, Whole, Colours | None, list[Words]]:
    """Turned, sewn or lidded until every edge is used as often one way as the other; _Open where it is not."""
    said: list[Words] = []
    open_edges = _open_edges(faces, len(vertices))
    if len(open_edges):
        turned = _turned_alike(vertices, faces)
        left = _open_edges(turned, len(vertices))
        if len(left) < len(open_edges):
            was, now = (abs(_signed(vertices - vertices.mean(axis=0), one)) for one in (faces, turned))
            said.append(words("mending.turned", was=was / 1000, now=now / 1000))
            faces, open_edges = turned, left
    if len(open_edges):
        sewn = _sewn(vertices, faces, open_edges)
        if sewn is not None:
            vertices, faces, kept, sewing = sewn
            colours = None if colours is None else colours[kept]
            said, open_edges = [sewing], open_edges[:0]
    if len(open_edges):
        sound = len(vertices)
        try:
            vertices, faces, lids = _lidded(vertices, faces, open_edges)
            if len(_open_edges(faces, len(vertices))):
                raise CannotClose("edges are left that only one triangle uses")
        except CannotClose as why:
            raise _Open(vertices[:sound], faces[(faces < sound).all(axis=1)], colours, why) from None
        colours = None if colours is None else _lids_coloured(colours, faces, sound, len(vertices))
        said.append(lids)
    return vertices, faces, colours, said


def _welded(
    vertices: Array, faces: Whole
) -> tuple[Array, Whole, Whole]:
    """Corners that fall together made one; triangles without area dropped, of twins one kept.

    Returns (vertices, faces, which of the given vertices they are).
    """
    low = vertices.min(axis=0)
    span = float((vertices.max(axis=0) - low).max()) or 1.0
    key = np.zeros(len(vertices), dtype=np.int64)
    for axis in range(3):
        key *= ROW
        key += np.rint((vertices[:, axis] - low[axis]) / (span * WELD)).astype(np.int64)
    _, first, of = np.unique(key, return_index=True, return_inverse=True)
    del key
    faces = of[faces]
    sound = (
        (faces[:, 0] != faces[:, 1]) & (faces[:, 1] != faces[:, 2]) & (faces[:, 2] != faces[:, 0])
    )
    faces = faces[sound]
    lead = faces.argmin(axis=1)
    code = np.zeros(len(faces), dtype=np.int64)
    for corner, factor in enumerate((1, len(first), MIX)):
        code *= factor
        code += np.take_along_axis(faces, ((lead + corner) % 3)[:, None], axis=1)[:, 0]
    _, once = np.unique(code, return_index=True)
    used = faces[np.sort(once)]
    keep, renamed = np.unique(used, return_inverse=True)
    kept = first[keep]
    return vertices[kept], renamed.reshape(-1, 3), kept


def _open_edges(faces: Whole, count: int) -> Whole:
    """Directed edges that are not used as often the other way, (n, 2)."""
    edges = np.concatenate([faces[:, [0, 1]], faces[:, [1, 2]], faces[:, [2, 0]]])
    least, most = edges.min(axis=1), edges.max(axis=1)
    way = np.where(edges[:, 0] < edges[:, 1], 1, -1)
    key = least * count + most
    order = np.argsort(key, kind="stable")
    key, way = key[order], way[order]
    starts = np.flatnonzero(np.concatenate([[True], key[1:] != key[:-1]]))
    total = np.add.reduceat(way, starts)
    odd = total != 0
    pairs = np.stack([key[starts[odd]] // count, key[starts[odd]] % count], axis=1)
    return np.where((total[odd] > 0)[:, None], pairs, pairs[:, ::-1])


def _turned_alike(vertices: Array, faces: Whole) -> Whole:
    """Neighbouring triangles made to agree on their way round."""
    import trimesh

    mesh = trimesh.Trimesh(vertices, faces, process=False)
    try:
        trimesh.repair.fix_winding(mesh)
    except Exception:
        return faces
    return np.asarray(mesh.faces, dtype=np.int64)


def _sewn(
    vertices: Array, faces: Whole, open_edges: Whole
) -> tuple[Array, Whole, Whole, Words] | None:
    """Corners of open edges that nearly meet made one; None where that does not close the mesh.

    Returns (vertices, faces, which of the given vertices they are, what was done).
    """
    sides = vertices[faces[:, [1, 2, 0]]] - vertices[faces]
    short = float(np.quantile(np.linalg.norm(sides, axis=2), SHORT_EDGES))
    reach = min(LARGEST_GAP_MM, GAP_OF_EDGE * short)
    torn = np.unique(open_edges)
    pairs = torn[cKDTree(vertices[torn]).query_pairs(reach, output_type="ndarray")]
    if not len(pairs):
        return None
    graph = coo_array(
        (np.ones(len(pairs), dtype=np.int8), (pairs[:, 0], pairs[:, 1])),
        shape=(len(vertices), len(vertices)),
    )
    count, of = connected_components(graph, directed=False)
    total = np.zeros((count, 3))
    np.add.at(total, of, vertices)
    joined_at = total / np.bincount(of, minlength=count)[:, None]
    first = np.full(count, len(vertices))
    np.minimum.at(first, of, np.arange(len(vertices)))
    points, renamed, kept = _welded(joined_at, of[faces])
    turned = _turned_alike(points, renamed)
    if len(_open_edges(turned, len(points))):
        return None
    skin = mesh_area(TriMesh(points, turned.astype(np.int32)))
    return points, turned, first[kept], words("mending.sewn", reach=reach, off=skin * reach / 2000)


def _lidded(vertices: Array, faces: Whole, open_edges: Whole) -> tuple[Array, Whole, Words]:
    """Holes closed with lids, and what that changed; CannotClose where they cannot be."""
    before = _signed(vertices - vertices.mean(axis=0), faces)
    closed = close_holes(vertices, faces, open_edges)
    after = _signed(closed.vertices - vertices.mean(axis=0), closed.faces)
    change = abs(after - before) / max(abs(after), 1e-9)
    smooth = sum(not lid.flat for lid in closed.lids)
    holes = len(closed.lids)
    kind = words(f"mending.{'flat' if not smooth else 'smooth' if smooth == holes else 'mixed'}")
    area = sum(lid.area for lid in closed.lids)
    return closed.vertices, closed.faces, words(
        "mending.lid", holes=holes, kind=kind, area=area / 100, change=change
    )


def _estimated(
    vertices: Array, faces: Whole, colours: Colours | None, why: CannotClose, unit: str
) -> Brought:
    """The solid that a mesh which does not close winds around; GondolaError where that is no inside."""
    solid = estimated_solid(TriMesh(vertices, faces.astype(np.int32)))
    reason = why.words.format(width=_length_words(why.width, unit))
    if solid.clear_share < LEAST_CLEAR or solid.volume <= 0:
        raise GondolaError(
            f"This mesh is an open surface with no inside: {reason}, and only {solid.clear_share:.0%} of it has "
            "an inside to speak of. Give it thickness, close it first, or give its volume with a simple solid."
        )
    spread = 0.5 * (solid.most_volume - solid.least_volume)
    worn = None if colours is None else colours[cKDTree(vertices).query(solid.mesh.vertices)[1]]
    middle = 0.5 * (solid.mesh.vertices.max(axis=0) + solid.mesh.vertices.min(axis=0))
    foot = np.array([middle[0], middle[1], solid.mesh.vertices[:, 2].min()])
    size = np.ptp(solid.mesh.vertices, axis=0)
    return Brought(
        mesh=TriMesh(solid.mesh.vertices - foot, solid.mesh.faces, worn),
        volume_ml=solid.volume / 1000,
        size_mm=[round(float(side), 2) for side in size],
        triangles_count=len(solid.mesh.faces),
        words=[
            words("mending.estimated", reason=reason, volume=solid.volume / 1000, spread=spread / 1000),
        ],
        estimate=Estimate(
            least_ml=solid.least_volume / 1000, most_ml=solid.most_volume / 1000,
            less=TriMesh(solid.less.vertices - foot, solid.less.faces),
            more=TriMesh(solid.more.vertices - foot, solid.more.faces),
        ),
    )


def _length_words(length_mm: float, unit: str) -> str:
    return f"{length_mm / UNITS_MM[unit]:.3g} {unit}"


def _lids_coloured(colours: Colours, faces: Whole, sound: int, count: int) -> Colours:
    """Colours with those of the lids' own corners added, each the mean of the rims that its lid hangs on."""
    lids = faces[(faces >= sound).any(axis=1)]
    known = np.concatenate([colours.astype(float), np.full((count - sound, 3), np.nan)])
    while np.isnan(known).any():
        ends = np.concatenate([lids[:, [0, 1]], lids[:, [1, 2]], lids[:, [2, 0]]])
        ends = np.concatenate([ends, ends[:, ::-1]])
        ends = ends[np.isnan(known[ends[:, 0], 0]) & ~np.isnan(known[ends[:, 1], 0])]
        total, times = np.zeros((count, 3)), np.zeros(count)
        np.add.at(total, ends[:, 0], known[ends[:, 1]])
        np.add.at(times, ends[:, 0], 1.0)
        met = times > 0
        known[met] = total[met] / times[met][:, None]
    return np.asarray(np.rint(known), dtype=np.uint8)


def _signed(vertices: Array, faces: Whole) -> float:
    return mesh_volume(TriMesh(vertices, faces.astype(np.int32)))


def _outward_shells(
    vertices: Array, faces: Whole
) -> tuple[Whole, bool]:
    """Shells with negative volume turned, unless they lie in a larger one and are its cavity."""
    edges = np.concatenate([faces[:, :2], faces[:, 1:]])
    graph = coo_array(
        (np.ones(len(edges), dtype=np.int8), (edges[:, 0], edges[:, 1])),
        shape=(len(vertices), len(vertices)),
    )
    count, of = connected_components(graph, directed=False)
    shell = of[faces[:, 0]]
    a, b, c = (vertices[faces[:, corner]] for corner in range(3))
    parts = np.einsum("ij,ij->i", a, np.cross(b, c)) / 6.0
    volume = np.bincount(shell, weights=parts, minlength=count)
    if not (volume < 0).any():
        return faces, False
    low = np.full((count, 3), np.inf)
    high = np.full((count, 3), -np.inf)
    np.minimum.at(low, of, vertices)
    np.maximum.at(high, of, vertices)
    flip = np.zeros(count, dtype=bool)
    for one in np.flatnonzero(volume < 0):
        around = (
            (low <= low[one]).all(axis=1) & (high >= high[one]).all(axis=1)
            & (np.abs(volume) > abs(volume[one]))
        )
        flip[one] = not around.any()
    turn = flip[shell]
    faces = np.where(turn[:, None], faces[:, ::-1], faces)
    return faces, bool(flip.any())
