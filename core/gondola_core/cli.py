"""The `gondola` command."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable, Sequence
from dataclasses import asdict
from datetime import date
from importlib.metadata import entry_points
from pathlib import Path

from .errors import GondolaError
from .scene import LARGEST_FILE, Scene, Units, read_scene
from .words import US

COMMANDS = "gondola.commands"
"""Entry points by which other packages add commands, each taking the rest of the words."""


def main(words: Sequence[str] | None = None) -> int:
    """Run one command; 0 if it went well, 2 if something has to be changed first."""
    arguments = list(sys.argv[1:] if words is None else words)
    added = {entry.name: entry for entry in entry_points(group=COMMANDS)}
    if arguments and arguments[0] in added:
        run: Callable[[list[str]], int] = added[arguments[0]].load()
        return run(arguments[1:])
    options = _parser(sorted(added)).parse_args(arguments)
    try:
        sys.stdout.write(str(options.run(options)) + "\n")
    except GondolaError as flaw:
        sys.stderr.write(f"{flaw.message}\n")
        return 2
    return 0


def _parser(added: list[str]) -> argparse.ArgumentParser:
    from .samples import SAMPLES

    more = f" More commands here: {', '.join(added)}." if added else ""
    parser = argparse.ArgumentParser(
        prog="gondola", description="What will happen when a scene is cast in resin." + more
    )
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    one = commands.add_parser("evaluate", help="print what will happen to a scene")
    one.add_argument("scene", metavar="SCENE.json")
    one.add_argument("--text", action="store_true", help="as a table to read, not as JSON")
    one.add_argument("--fine", action="store_true", help="march on fine cells (seconds)")
    one.add_argument(
        "--units", choices=("mm", "in"), help="say sentences and the table in these units, not the scene's own"
    )
    one.set_defaults(run=_evaluate)
    schema = commands.add_parser("schema", help="print the JSON Schema of a scene")
    schema.set_defaults(run=lambda _: json.dumps(Scene.model_json_schema(), indent=2))
    sample = commands.add_parser("sample", help="print a made-up scene to start from")
    sample.add_argument("name", choices=sorted(SAMPLES))
    sample.set_defaults(run=lambda chosen: SAMPLES[chosen.name]().model_dump_json(indent=2))
    picture = commands.add_parser("still", help="draw the finished block, as a PNG file")
    picture.add_argument("scene", metavar="SCENE.json")
    picture.add_argument("file", metavar="STILL.png")
    picture.add_argument("--azimuth", type=float, default=20.0, help="turn of the eye [degrees]")
    picture.add_argument("--width", type=int, default=1600, help="dots across")
    picture.set_defaults(run=_still)
    ready = commands.add_parser("prepare", help="compile what is compiled once, so that no first answer waits for it")
    ready.add_argument("--only", nargs="+", choices=("heat", "pictures", "stills"), help="all where none is named")
    ready.set_defaults(run=_prepare)
    validate = commands.add_parser("validate", help="measure each model against its closed form or published table")
    validate.add_argument("--write", metavar="PAGE.md", help="write the page there, in place of printing it")
    validate.set_defaults(run=_validate)
    return parser


def _prepare(options: argparse.Namespace) -> str:
    from .prepare import PARTS

    parts = options.only or list(PARTS)
    for part in parts:
        PARTS[part]()
    return f"Prepared: {', '.join(parts)}."


def _validate(options: argparse.Namespace) -> str:
    from .validation import measure_all, validation_page
    from .words import words

    rows = measure_all()
    page = validation_page(rows, f"{date.today():%-d %B %Y}")
    if options.write:
        Path(options.write).write_text(page, "utf-8")
    failed = sum(not row.holds for row in rows)
    if failed:
        raise GondolaError(words("refusals.not_validated", failed=failed, count=len(rows)))
    return f"{len(rows)} comparisons hold." if options.write else page


def _still(options: argparse.Namespace) -> str:
    from .studies.stills import still_png
    from .views.look.stand import usual_stand

    scene = read_scene(_text_of(Path(options.scene)))
    size = options.width, round(options.width / 1.6)
    Path(options.file).write_bytes(still_png(scene, usual_stand(scene, options.azimuth), size, lambda _: None))
    return f"{options.file}: {size[0]} x {size[1]}"


def _evaluate(options: argparse.Namespace) -> str:
    # the kernels take a second to load: other commands need not wait for them
    from .checks import reader_units
    from .documents.text_table import report
    from .evaluate import DRAFT, FINE, evaluate, outcome_json

    scene = _in_units(read_scene(_text_of(Path(options.scene))), options.units)
    outcome, units = evaluate(scene, FINE if options.fine else DRAFT), reader_units(scene.brief.units)
    return report(scene.name, outcome, units) if options.text else outcome_json(outcome, units).decode()


def _in_units(scene: Scene, units: str | None) -> Scene:
    """The scene, read in metric units or in inches; None leaves them as they are."""
    if units is None:
        return scene
    chosen = Units() if units == "mm" else Units(**asdict(US))
    return scene.model_copy(update={"brief": scene.brief.model_copy(update={"units": chosen})})


def _text_of(path: Path) -> bytes:
    try:
        if path.stat().st_size > LARGEST_FILE:
            raise GondolaError(
                f"{path} is over {LARGEST_FILE // 2**20} MB; a scene is far smaller."
            )
        return path.read_bytes()
    except OSError as flaw:
        raise GondolaError(f"{path} cannot be read: {flaw.strerror}.") from None
