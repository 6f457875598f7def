"""The package: built twice to the same bytes, installed where there is no checkout, and served from there."""

from __future__ import annotations

import hashlib
import re
import subprocess
import sys
import sysconfig
import tempfile
import urllib.request
from pathlib import Path

from .serving import ROOT, served


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


def served_page(command: Path) -> tuple[int, int]:
    """Bytes of the page and of its script, as `gondola serve` gives them from an empty folder."""
    with served("serve", [], [str(command)]) as (address, _, _):
        page = _read(f"{address}/")
        script = re.search(rb'src="(/static/[^"]+\.js)"', page)
        return len(page), len(_read(f"{address}{script[1].decode()}")) if script else 0


def packaged() -> tuple[bool, str]:
    """Whether all of it held, and the sentence."""
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        wheel, same = same_twice(folder)
        page, script = served_page(installed(wheel, folder / "env"))
        held = same and page > 0 and script > 0
        twice = "gave the same bytes" if same else "differ"
        return held, (
            f"`{wheel.name}`, {wheel.stat().st_size // 1000} kB: two builds {twice}; "
            f"installed without a checkout, `gondola serve` gave the page and its script of {script // 1000} kB."
        )


def _read(address: str) -> bytes:
    with urllib.request.urlopen(address, timeout=60) as answer:
        return bytes(answer.read())
