"""`gondola device scale|thermometer`: a simulated device on loopback, until it is stopped."""

from __future__ import annotations

import argparse
import sys
from pathlib import Path

import numpy as np

from gondola_core.errors import GondolaError
from gondola_core.samples import SAMPLES
from gondola_core.scene import Scene, read_scene
from gondola_core.studies.watching import watched

from .serving import Device, Served
from .simulated import Scale, Thermometer, Truth


def main(words: list[str]) -> int:
    """Serve one device; 2 where something has to be changed first."""
    options = _parser().parse_args(words)
    try:
        device = _scale(options) if options.kind == "scale" else _thermometer(options)
        served = Served(device, options.port, options.a_second)
    except (GondolaError, OSError) as flaw:
        sys.stderr.write(f"{flaw}\n")
        return 2
    print(f"The {options.kind} is at 127.0.0.1:{served.port} (stop it with Ctrl+C)", flush=True)
    with served:
        try:
            served.serve_forever()
        except KeyboardInterrupt:
            return 0
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="gondola device", description=__doc__)
    kinds = parser.add_subparsers(dest="kind", required=True, metavar="scale|thermometer")
    for kind, port in (("scale", 7311), ("thermometer", 7312)):
        one = kinds.add_parser(kind)
        one.add_argument("--port", type=int, default=port, help=f"on loopback; {port} unless given, 0 for a free one")
        one.add_argument("--a-second", type=float, default=10.0, help="readings a second")
        one.add_argument("--seed", type=int, default=1)
    scale, thermometer = kinds.choices["scale"], kinds.choices["thermometer"]
    scale.add_argument("--step", type=float, default=0.1, help="smallest step [g]")
    scale.add_argument("--most", type=float, default=5000.0, help="overloaded above [g]")
    scale.add_argument("--drift", type=float, default=0.3, help="creeps by so many grams in an hour")
    thermometer.add_argument("--scene", help="scene file; the Wagon if none is given")
    thermometer.add_argument("--pour", type=int, default=1, help="which pour the probe stands in")
    thermometer.add_argument("--speed", type=float, default=1.0, help="seconds of the march in one of ours")
    thermometer.add_argument("--warmer", type=float, default=0.0, help="by so many kelvin than the march says")
    thermometer.add_argument("--room", type=float, help="of the room, where that is not as planned [degrees C]")
    return parser


def _scale(options: argparse.Namespace) -> Device:
    return Scale(step_g=options.step, most_g=options.most, drift_g_h=options.drift, seed=options.seed)


def _thermometer(options: argparse.Namespace) -> Device:
    scene = read_scene(Path(options.scene).read_bytes()) if options.scene else SAMPLES["quarry-pool"]()
    truth = replayed(scene, options.pour, options.speed, options.warmer, options.room)
    return Thermometer(truth, seed=options.seed)


def replayed(scene: Scene, number: int, speed: float, warmer_k: float, room_c: float | None) -> Truth:
    """What both probes show as the march of a pour is replayed, by seconds of ours."""
    band = watched(scene, number)
    at, resin = np.array(band.at_h), np.array(band.middle_c)
    room = scene.brief.room.mean_c if room_c is None else room_c

    def truth(at_s: float) -> tuple[float | None, float | None]:
        hours = at_s * speed / 3600
        return (float(np.interp(hours, at, resin)) + warmer_k if len(at) else None), room

    return truth
