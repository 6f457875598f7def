"""The package: built twice to the same bytes, installed where there is no checkout, and served from there."""

from __future__ import annotations

import contextlib
import hashlib
import os
import re
import signal
import subprocess
import sys
import sysconfig
import tempfile
import time
import urllib.request
from pathlib import Path

from .serving import ROOT, free_port


def built(into: Path) -> Path:
    """The wheel of this checkout."""
    subprocess.run(
        [str(Path(sys.executable).parent / "uv"), "build", "--quiet", "--wheel", "--out-dir", str(into), str(ROOT)],
        check=True,
    )
    return next(into.glob("gondola-*.whl"))


def same_twice(folder: Path) -> tuple[Path, bool]:
    """A wheel, and whether a second build gives its bytes again."""
    first, second = built(folder / "one"), built(folder / "two")
    digests = {hashlib.sha256(one.read_bytes()).hexdigest() for one in (first, second)}
    return first, len(digests) == 1 and first.name == second.name


def installed(wheel: Path, folder: Path) -> Path:
    """The command of an environment of its own; what the package needs is lent to it, for lack of a network."""
    subprocess.run([sys.executable, "-m", "venv", str(folder)], check=True)
    pip = [str(folder / "bin" / "python"), "-m", "pip", "install", "--quiet", "--no-index", "--no-deps", str(wheel)]
    subprocess.run(pip, check=True)
    place = next(folder.glob("lib/python*/site-packages"))
    (place / "zz_lent.pth").write_text(f"{sysconfig.get_path('purelib')}\n")
    return folder / "bin" / "gondola"


def served_page(command: Path, folder: Path) -> tuple[int, int]:
    """Bytes of the page and of its script, as `gondola serve` gives them from an empty folder."""
    folder.mkdir()
    port = free_port()
    known = {key: value for key, value in os.environ.items() if not key.startswith(("GONDOLA_", "PYTHON"))}
    with (folder / "log.txt").open("w") as log:
        process = subprocess.Popen(
            [str(command), "serve", "--port", str(port)], cwd=folder, stdout=log, stderr=log, start_new_session=True,
            env={**known, "GONDOLA_DATA": str(folder / "data")},
        )
        try:
            page = _read(f"http://127.0.0.1:{port}/")
            script = re.search(rb'src="(/static/[^"]+\.js)"', page)
            return len(page), len(_read(f"http://127.0.0.1:{port}{script[1].decode()}")) if script else 0
        finally:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGTERM)
            process.wait(timeout=60)


def packaged() -> tuple[bool, str]:
    """Whether all of it held, and the sentence."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        wheel, same = same_twice(folder)
        page, script = served_page(installed(wheel, folder / "env"), folder / "empty")
        held = same and page > 0 and script > 0
        twice = "gave the same bytes" if same else "differ"
        return held, (
            f"`{wheel.name}`, {wheel.stat().st_size // 1000} kB: two builds {twice}; "
            f"installed without a checkout, `gondola serve` gave the page and its script of {script // 1000} kB."
        )


def _read(address: str) -> bytes:
    for _ in range(300):
        try:
            with urllib.request.urlopen(address, timeout=10) as answer:
                return bytes(answer.read())
        except OSError:
            time.sleep(0.2)
    raise RuntimeError(f"{address} did not answer within a minute")
