"""`make soak`: the long tests with a seed, and the report of what they came to."""

from __future__ import annotations

import argparse
import os
import re
import subprocess
import sys
import time
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path

from .beside import AT_A_TIME, drags_beside
from .load import Told, load
from .package import packaged
from .serving import ROOT, Person, served

REPORT = ROOT / "docs" / "reliability.md"
MOST_DRAG_MS = 300
MOST_ANSWER_S = 5.0
CHECKS = "not_a_server_error,status_code_conformance"


def main() -> int:
    """Run what is asked for, write the report; 1 where something did not hold."""
    parser = argparse.ArgumentParser(prog="soak", description=__doc__)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--scenes", type=int, default=1500, help="scenes that are fuzzed")
    parser.add_argument("--files", type=int, default=2000, help="files of each form that are damaged and brought in")
    parser.add_argument("--examples", type=int, default=25, help="questions to each operation of the API")
    parser.add_argument("--people", type=int, default=20)
    parser.add_argument("--minutes", type=float, default=5.0)
    parser.add_argument("--report", type=Path, default=REPORT)
    parser.add_argument("--parts", nargs="+", choices=PARTS, default=list(PARTS))
    options = parser.parse_args()
    sections = sections_of(options.report.read_text()) if options.report.exists() else {}
    held = True
    for part, (title, run) in PARTS.items():
        if part in options.parts:
            good, text = run(options)
            held = held and good
            sections[title] = _section(good, text, part, options)
            # what has run is told even where a later part does not come to its end
            options.report.write_text(_page(sections))
    print(f"Written to {options.report}; {'all held' if held else 'not all held'}.")
    return 0 if held else 1


def _scenes(options: argparse.Namespace) -> tuple[bool, str]:
    count = options.scenes
    good, spent, flaw = _alone("test_fuzzed", GONDOLA_SOAK_SCENES=str(count), GONDOLA_SOAK_SEED=str(options.seed))
    return good, (
        f"{count} scenes, with up to six values moved anywhere within their bounds, were refused in a sentence or "
        f"computed to finite numbers, and {20 * count} read, written and read again to the same bytes, "
        f"in {spent:.0f} s: "
        f"{'held' if good else flaw}."
    )


def _files(options: argparse.Namespace) -> tuple[bool, str]:
    """Importers of the core, then those of the server."""
    took = ROOT / ".setup" / "files.txt"
    took.unlink(missing_ok=True)
    asked = {"GONDOLA_SOAK_FILES": str(options.files), "GONDOLA_SOAK_SEED": str(options.seed)}
    core, spent, flaw = _alone("test_importers_fuzzed", GONDOLA_SOAK_TOLD=str(took), **asked)
    good, server = _tests("keeping.tests.test_fuzzed", **asked)
    rows = [line.split("|") for line in took.read_text().splitlines()] if took.exists() else []
    tried, read = (sum(int(row[at]) for row in rows) for at in (1, 2))
    slowest = max(rows, key=lambda row: float(row[3]), default=["", "", "", "0", "0"])
    held = core and good and float(slowest[3]) < MOST_ANSWER_S
    return held, (
        f"{tried} files of {len(rows)} forms, cut, spliced, overwritten or told oddly, in "
        f"{spent:.0f} s: {read} were read to finite numbers, the others refused in a sentence. The "
        f"slowest took {slowest[3]} s ({slowest[0]}; {MOST_ANSWER_S:g} asked), the process held "
        f"{max((int(row[4]) for row in rows), default=0)} MB at most. Archives and photographs, by the server: "
        f"{server}. {'Held' if core else flaw}."
    )


def _api(options: argparse.Namespace) -> tuple[bool, str]:
    examples, seed = options.examples, options.seed
    with served("demo", []) as (address, _, _):
        token = next(one.value for one in Person(address).jar if one.name == "csrftoken")
        began = time.monotonic()
        done = subprocess.run(
            [
                str(Path(sys.executable).parent / "schemathesis"), "run", f"{address}/api/openapi.json",
                "--url", address, "-H", f"Cookie: csrftoken={token}", "-H", f"X-CSRFToken: {token}",
                "-H", f"Origin: {address}",
                "--max-examples", str(examples), "--phases", "fuzzing", "--checks", CHECKS, "--request-timeout", "30",
                "--seed", str(seed),
            ],
            capture_output=True, text=True, check=False, cwd=ROOT / ".setup",
        )
        spent = time.monotonic() - began
    tested = re.search(r"(\d[\d,]*) generated", done.stdout)
    failed = re.findall(r"❌ (ST\d+ [^\n]+)", done.stdout)
    return done.returncode == 0, (
        f"{tested[1] if tested else 'no'} questions from the OpenAPI document, to every operation, in {spent:.0f} s: "
        f"{failed or 'no status that the document does not name and no fault of ours'}."
    )


def _people(options: argparse.Namespace) -> tuple[bool, str]:
    people, minutes = options.people, options.minutes
    told: Told = load(people, minutes, options.seed)
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


def _alone(module: str, **more: str) -> tuple[bool, float, str]:
    """A module of the core's tests, without Django: whether it passed, how long it took [s], what was wrong."""
    began = time.monotonic()
    done = subprocess.run(
        [sys.executable, "-m", "unittest", module], cwd=ROOT / "core" / "tests",
        env={**os.environ, "GONDOLA_SOAK": "1", **more}, capture_output=True, text=True, check=False,
    )
    return done.returncode == 0, time.monotonic() - began, _last(done.stderr)


def _tests(*words: str, **more: str) -> tuple[bool, str]:
    """Some of the tests under Django's runner: whether they passed, and how long they took or what was wrong."""
    told = {**os.environ, "GONDOLA_SOAK": "1", "PYTHONPATH": str(ROOT), **more}
    began = time.monotonic()
    done = subprocess.run(
        [sys.executable, str(ROOT / "server" / "manage.py"), "test", "--noinput", *words], env=told,
        capture_output=True, text=True, check=False, cwd=ROOT,
    )
    ran = re.search(r"Ran (\d+) test", done.stderr)
    good = done.returncode == 0 and ran is not None and int(ran[1]) > 0
    spent = f"{ran[1] if ran else 'no'} tests in {time.monotonic() - began:.0f} s"
    return good, spent if good else f"{spent}: {_last(done.stderr)}"


def _beside(_: argparse.Namespace) -> tuple[bool, str]:
    alone, beside, answered, slowest = drags_beside(24.0)
    return beside < MOST_DRAG_MS, (
        f"A second person's drag of a line took {alone:.0f} ms (median) alone and {beside:.0f} ms ({MOST_DRAG_MS} "
        f"asked) beside somebody who asks for the worst drafts there are, {AT_A_TIME} at a time, in turn: "
        f"{answered} were answered, the slowest with its wait after {slowest:.0f} s."
    )


def _kills(_: argparse.Namespace) -> tuple[bool, str]:
    good, spent = _tests("--tag", "kills", "e2e")
    return good, (
        "All processes killed with SIGKILL fifty times, between the steps of a run and with an event on its way: no "
        f"acknowledged event may be lost, and none doubled ({spent})."
    )


def _long(_: argparse.Namespace) -> tuple[bool, str]:
    good, spent = _tests("--tag", "long", "--exclude-tag", "kills", "e2e")
    return good, f"Browser tests that take minutes, on every width, by day and night, and without eyes ({spent})."


def _core(_: argparse.Namespace) -> tuple[bool, str]:
    # what is fuzzed has parts of its own
    good, spent = _tests("--parallel", "2", "core/tests", GONDOLA_SOAK_SCENES="12", GONDOLA_SOAK_FILES="60")
    return good, f"The core's tests, which `make test` runs without Django, under Django's runner ({spent})."


def _last(text: str) -> str:
    lines = [one for one in text.strip().splitlines() if one.strip()]
    return " / ".join(lines[-3:])[:300] if lines else "no word"


def sections_of(report: str) -> dict[str, str]:
    """What stands under each title of a report."""
    parts = re.split(r"^## (.+)\n", report, flags=re.MULTILINE)[1:]
    return {title: text.strip() for title, text in zip(parts[::2], parts[1::2], strict=True)}


def _section(good: bool, text: str, part: str, options: argparse.Namespace) -> str:
    words = " ".join(f"--{one} {getattr(options, one)}" for one in GIVEN.get(part, ()))
    commit = subprocess.run(
        ["git", "describe", "--always", "--dirty"], cwd=ROOT, capture_output=True, text=True, check=False
    ).stdout.strip()
    return (
        f"{'Held' if good else '**Did not hold**'}. {text}\n\n"
        f"{datetime.now(UTC):%Y-%m-%d %H:%M} UTC, commit {commit or 'unknown'}, {os.cpu_count()} shared cores: "
        f"`python -m soak.run --parts {part}{' ' if words else ''}{words}`"
    )


def _page(sections: dict[str, str]) -> str:
    """The report: each part as it was run last, whenever that was."""
    titles = [title for title, _ in PARTS.values()]
    rows = "\n\n".join(f"## {title}\n\n{sections[title]}" for title in titles if title in sections)
    left = [title.lower() for title in titles if title not in sections]
    never = f"Never run: {'; '.join(left)}.\n\n" if left else ""
    return (
        "# Reliability\n\nWritten by `make soak`. Each part stands as it was run last, with its moment, its commit and "
        f"its command.\n\n{never}{rows}\n"
    )


GIVEN = {
    "scenes": ("seed", "scenes"), "files": ("seed", "files"), "api": ("seed", "examples"),
    "load": ("seed", "people", "minutes"),
}
"""What each part is given."""


PARTS: dict[str, tuple[str, Callable[[argparse.Namespace], tuple[bool, str]]]] = {
    "scenes": ("Scenes, fuzzed", _scenes), "files": ("Files, damaged", _files), "api": ("The API, fuzzed", _api),
    "load": ("Load", _people),
    "beside": ("Beside the worst drafts", _beside), "kills": ("Kills", _kills), "long": ("Long browser tests", _long),
    "core": ("The core under Django", _core), "package": ("The package", lambda _: packaged()),
}
"""What may be run, in this order: a title, and what runs it and tells whether it held."""

if __name__ == "__main__":
    sys.exit(main())
