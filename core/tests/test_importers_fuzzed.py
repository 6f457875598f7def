"""Whatever file a person brings is read to finite numbers or refused in a sentence."""

import dataclasses
import io
import json
import logging
import math
import os
import resource
import time
import unittest
from pathlib import Path

import numpy as np
import trimesh
from damaged import damaged, damaged_glb, damaged_inside, odd_json
from hypothesis import HealthCheck, given, seed, settings
from PIL import Image
from soaked import as_many
from test_fill import TANK

from gondola_core.errors import GondolaError
from gondola_core.learning.temperature_log import read_log
from gondola_core.samples import SAMPLES
from gondola_core.scene import read_scene
from gondola_core.shape.bedform import map_heights
from gondola_core.shape.bodies.bringing import bring_packed
from gondola_core.shape.bodies.mesh import unpack_mesh, unpacked_bytes
from gondola_core.tint.measured_spectrum import MeasuredSpectrum, colourant_of_spectrum

EXAMPLES = as_many(int(os.environ.get("GONDOLA_SOAK_FILES", "2000")), 60)
SEED = int(os.environ.get("GONDOLA_SOAK_SEED", "1"))
TOLD = os.environ.get("GONDOLA_SOAK_TOLD")
"""A file to which what it took is written, a line for each form."""
PLAIN = settings(
    max_examples=EXAMPLES, deadline=None, database=None, print_blob=True, suppress_health_check=list(HealthCheck)
)
BALL = trimesh.creation.icosphere(2, 14.0)
COLOURED = trimesh.Trimesh(BALL.vertices, BALL.faces, process=False, vertex_colors=[(200, 90, 30, 255)] * 162)


def written(mesh, kind):
    content = mesh.export(file_type=kind)
    return content.encode() if isinstance(content, str) else content


def textured():
    """A ball with a picture on it."""
    image = Image.new("RGB", (8, 8), (90, 120, 60))
    material = trimesh.visual.material.PBRMaterial(baseColorTexture=image)
    visual = trimesh.visual.TextureVisuals(uv=BALL.vertices[:, :2] / 28 + 0.5, material=material)
    return trimesh.Trimesh(BALL.vertices, BALL.faces, process=False, visual=visual)


def png(mode, shape, top):
    out = io.BytesIO()
    kind = np.uint16 if mode == "I;16" else np.uint8
    Image.fromarray(np.linspace(0, top, math.prod(shape)).reshape(shape).astype(kind)).save(out, "PNG")
    return out.getvalue()


def log(row, header, count=60):
    return "\n".join([header, *(row(at, 23 + 40 * math.exp(-((at - 20) / 9) ** 2)) for at in range(count))]).encode()


GLBS = [written(one, "glb") for one in (BALL, COLOURED, textured())]
MESHES = {
    "stl": [written(BALL, "stl"), written(BALL, "stl_ascii")],
    "obj": [written(BALL, "obj"), written(COLOURED, "obj")],
    "ply": [written(BALL, "ply"), COLOURED.export(file_type="ply", encoding="ascii")],
    "glb": GLBS,
}
GRID = "\n".join(",".join(str(row + column) for column in range(9)) for row in range(7)).encode()
LOGS = [
    log(lambda at, cup: f"{at},{cup:.2f},22.5", "minutes,cup C,room C"),
    log(lambda at, cup: f"2027-03-06 {9 + at // 60:02d}:{at % 60:02d};{cup:.1f}".replace(".", ","), "time;cup"),
    log(lambda at, cup: f"{at // 60}:{at % 60:02d}\t{1.8 * cup + 32:.1f}", "elapsed\tcup F"),
]
SPECTRUM = "\n".join(["nm,absorbance", *(f"{nm},{0.2 + nm / 9000:.4f}" for nm in range(380, 721, 10))]).encode()
SCENES = [json.dumps(make().model_dump(mode="json")).encode() for make in SAMPLES.values()]

PACKED = [bring_packed(GLBS[1], "glb", "mm")[0]]


def spectrum(content):
    text = content.decode("utf-8", "replace")
    return colourant_of_spectrum(MeasuredSpectrum(text=text, name="mine", drops_per_100g=2), "mine")


def packed(content):
    if unpacked_bytes(content) <= 2**27:
        return unpack_mesh(content)
    return None


def numbers(told):
    """Every number of what was read."""
    if isinstance(told, float):
        yield told
    elif isinstance(told, np.ndarray):
        yield from np.asarray(told, dtype=float).ravel()[:20_000]
    elif dataclasses.is_dataclass(told):
        for field in dataclasses.fields(told):
            yield from numbers(getattr(told, field.name))
    elif isinstance(told, list | tuple):
        for one in told:
            yield from numbers(one)


ROWS = {
    **{kind: (damaged(sound), lambda content, kind=kind: bring_packed(content, kind, "mm")[1])
       for kind, sound in MESHES.items()},
    "glb, described oddly": (damaged_glb(GLBS), lambda content: bring_packed(content, "glb", "mm")[1]),
    "map, png": (damaged([png("L", (9, 12), 255), png("I;16", (12, 9), 65_000)]),
                 lambda content: map_heights(content, "map.png", 0.0, 60.0, TANK)),
    "map, csv": (damaged([GRID, GRID.replace(b",", b";")]), lambda content: map_heights(content, "a.csv", 0, 60, TANK)),
    "temperature log": (damaged(LOGS), lambda content: read_log(content.decode("utf-8", "replace"))),
    "temperature log in C": (damaged(LOGS), lambda content: read_log(content.decode("latin-1"), "c")),
    "spectrum": (damaged([SPECTRUM, SPECTRUM.replace(b",", b";")]), spectrum),
    "scene": (damaged(SCENES), read_scene),
    "scene, odd": (odd_json(SCENES), read_scene),
    "packed mesh": (damaged(PACKED), packed),
    "packed mesh, odd inside": (damaged_inside(PACKED), packed),
}
"""What may come, and what reads it."""


class Importers(unittest.TestCase):
    def setUp(self):
        logging.disable()
        self.addCleanup(logging.disable, logging.NOTSET)

    def test_every_file_is_read_or_refused_in_a_sentence(self):
        for form, (files, read) in ROWS.items():
            with self.subTest(form):
                self._attack(form, files, read)

    def _attack(self, form, files, read):
        spent, made = [], []

        @seed(SEED)
        @PLAIN
        @given(files)
        def attacked(content):
            began = time.monotonic()
            try:
                told = read(content)
            except GondolaError as refused:
                self.assertTrue(str(refused.sentence).strip())
            else:
                made.append(1)
                self.assertTrue(all(math.isfinite(one) for one in numbers(told)))
            spent.append(time.monotonic() - began)

        attacked()
        if TOLD:
            peak_mb = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
            line = f"{form}|{len(spent)}|{len(made)}|{max(spent):.2f}|{peak_mb:.0f}"
            with Path(TOLD).open("a") as out:
                out.write(line + "\n")
