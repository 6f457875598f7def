"""`make soak`: the long tests with a seed, and the report of what they came to."""

from __future__ import annotations

import argparse
import os
import re
import subprocess
import sys
import time
from datetime import UTC, datetime
from pathlib import Path

from .load import Told, load
from .serving import ROOT, Person, served

REPORT = ROOT / "docs" / "reliability.md"
CHECKS = "not_a_server_error,status_code_conformance"


def main() -> int:
    """Run what is asked for, write the report; 1 where something did not hold."""
    parser = argparse.ArgumentParser(prog="soak", description=__doc__)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--scenes", type=int, default=1500, help="scenes that are fuzzed")
    parser.add_argument("--examples", type=int, default=25, help="questions to each operation of the API")
    parser.add_argument("--people", type=int, default=20)
    parser.add_argument("--minutes", type=float, default=5.0)
    parser.add_argument("--report", type=Path, default=REPORT)
    options = parser.parse_args()
    parts = [
        _scenes(options.scenes, options.seed), _api(options.examples, options.seed),
        _people(options.people, options.minutes, options.seed), _kills(), _long(), _core(),
    ]
    options.report.write_text(_page(parts, options))
    held = all(good for good, _ in parts)
    print(f"Written to {options.report}; {'all held' if held else 'not all held'}.")
    return 0 if held else 1


def _scenes(count: int, seed: int) -> tuple[bool, str]:
    told = {**os.environ, "GONDOLA_SOAK": "1", "GONDOLA_SOAK_SCENES": str(count), "GONDOLA_SOAK_SEED": str(seed)}
    began = time.monotonic()
    done = subprocess.run(
        [sys.executable, "-m", "unittest", "test_fuzzed"], cwd=ROOT / "core" / "tests", env=told, capture_output=True,
        text=True, check=False,
    )
    spent = time.monotonic() - began
    return done.returncode == 0, (
        f"{count} scenes, with up to six values moved anywhere within their bounds, were refused in a sentence or "
        f"computed to finite numbers, and {20 * count} read, written and read again to the same bytes, "
        f"in {spent:.0f} s: "
        f"{'held' if done.returncode == 0 else _last(done.stderr)}."
    )


def _api(examples: int, seed: int) -> tuple[bool, str]:
    with served("demo", []) as (address, _, _):
        token = next(one.value for one in Person(address).jar if one.name == "csrftoken")
        began = time.monotonic()
        done = subprocess.run(
            [
                str(Path(sys.executable).parent / "schemathesis"), "run", f"{address}/api/openapi.json",
                "--url", address, "-H", f"Cookie: csrftoken={token}", "-H", f"X-CSRFToken: {token}",
                "-H", f"Origin: {address}",
                "--max-examples", str(examples), "--phases", "fuzzing", "--checks", CHECKS, "--request-timeout", "30",
                "--seed", str(seed), "--exclude-path-regex", "events|stream",
            ],
            capture_output=True, text=True, check=False, cwd=ROOT / ".setup",
        )
        spent = time.monotonic() - began
    tested = re.search(r"(\d[\d,]*) generated", done.stdout)
    failed = re.findall(r"❌ (ST\d+ [^\n]+)", done.stdout)
    return done.returncode == 0, (
        f"{tested[1] if tested else 'no'} questions from the OpenAPI document, every operation but the streams, in "
        f"{spent:.0f} s: {failed or 'no status that the document does not name and no fault of ours'}."
    )


def _people(people: int, minutes: float, seed: int) -> tuple[bool, str]:
    told: Told = load(people, minutes, seed)
    p95 = told.share(told.save_ms, 0.95)
    good = not told.lost and not told.faults and p95 < 300
    return good, (
        f"{people} people for {minutes:g} minutes, an edit each every two seconds or so, five of them on one scene "
        f"together: {told.saves} saves acknowledged, {told.lost} lost, {told.conflicts} told that somebody was "
        f"quicker, {len(told.faults)} faults"
        f"{': ' + told.faults[0] if told.faults else ''}; a save took {told.share(told.save_ms, 0.5):.0f} ms (median), "
        f"{p95:.0f} ms (p95; 300 asked); a draft {told.share(told.draft_ms, 0.5):.0f} ms (median), "
        f"{told.share(told.draft_ms, 0.95):.0f} ms (p95)."
    )


def _tests(*words: str) -> tuple[bool, str]:
    """Some of the tests under Django's runner: whether they passed, and how long they took or what was wrong."""
    told = {**os.environ, "GONDOLA_SOAK": "1", "PYTHONPATH": str(ROOT)}
    began = time.monotonic()
    done = subprocess.run(
        [sys.executable, str(ROOT / "server" / "manage.py"), "test", "--noinput", *words], env=told,
        capture_output=True, text=True, check=False, cwd=ROOT,
    )
    ran = re.search(r"Ran (\d+) test", done.stderr)
    good = done.returncode == 0 and ran is not None and int(ran[1]) > 0
    spent = f"{ran[1] if ran else 'no'} tests in {time.monotonic() - began:.0f} s"
    return good, spent if good else f"{spent}: {_last(done.stderr)}"


def _kills() -> tuple[bool, str]:
    good, spent = _tests("--tag", "kills", "e2e")
    return good, (
        "All processes killed with SIGKILL fifty times, between the steps of a run and with an event on its way: no "
        f"acknowledged event may be lost, and none doubled ({spent})."
    )


def _long() -> tuple[bool, str]:
    good, spent = _tests("--tag", "long", "--exclude-tag", "kills", "e2e")
    return good, f"Browser tests that take minutes, on every width, by day and night, and without eyes ({spent})."


def _core() -> tuple[bool, str]:
    good, spent = _tests("--parallel", "2", "core/tests")
    return good, f"The core's tests, which `make test` runs without Django, under Django's runner ({spent})."


def _last(text: str) -> str:
    lines = [one for one in text.strip().splitlines() if one.strip()]
    return " / ".join(lines[-3:])[:300] if lines else "no word"


def _page(parts: list[tuple[bool, str]], options: argparse.Namespace) -> str:
    titles = ("Scenes, fuzzed", "The API, fuzzed", "Load", "Kills", "Long browser tests", "The core under Django")
    words = f"--seed {options.seed} --scenes {options.scenes} --examples {options.examples}"
    rows = "\n\n".join(
        f"## {title}\n\n{'Held' if good else '**Did not hold**'}. {text}"
        for title, (good, text) in zip(titles, parts, strict=True)
    )
    return (
        "# Reliability\n\n"
        f"Written by `make soak` on {datetime.now(UTC):%Y-%m-%d %H:%M} UTC, on {os.cpu_count()} shared cores, with\n"
        f"`python -m soak.run {words} --people {options.people} --minutes {options.minutes:g}`.\n\n{rows}\n"
    )


if __name__ == "__main__":
    sys.exit(main())
