"""`gondola serve`: a real installation, with accounts, its queue, backups by schedule, and tidying."""

from __future__ import annotations

import argparse
import subprocess
import sys
import time
from dataclasses import dataclass, field
from pathlib import Path

from keeping.backup import backup, thin_backups
from keeping.checking import check
from keeping.folder import BACKUPS, DATABASE, data_folder, held, secret_key

from gondola_core.errors import GondolaError

from .running import aside, aside_path, environment_for, manage, management, queue, until_stopped, web_process

LOOPBACK = ("127.0.0.1", "::1", "localhost")
HOUR = 3600.0
TIDY_EVERY_H = 6.0


def main(words: list[str]) -> int:
    """Check and bring the data up to date, tell how the owner comes in, then serve until stopped."""
    options = _parser().parse_args(words)
    try:
        refuse_open_door(options)
        folder = data_folder()
        with held(folder):
            return _serve(options, folder)
    except GondolaError as error:
        sys.stderr.write(f"{error.message}\n")
        return 2


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="gondola serve", description=__doc__)
    parser.add_argument("--host", default="127.0.0.1", help="the address to listen at")
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--names", default="", help="host names that people reach it by, with commas between")
    parser.add_argument("--certificate", type=Path, help="of TLS, as a PEM file")
    parser.add_argument("--certificate-key", type=Path, help="its key")
    parser.add_argument("--behind-proxy", action="store_true", help="a proxy on this machine does TLS and passes it on")
    parser.add_argument("--plain", action="store_true", help="without encryption: for a network that you trust whole")
    parser.add_argument("--backup-every-h", type=float, default=24.0, help="0 for none by schedule")
    parser.add_argument("--backups", type=Path, help="where they lie; better on another disk")
    parser.add_argument("--keep-backups", type=int, default=14)
    return parser


def refuse_open_door(options: argparse.Namespace) -> None:
    """GondolaError where passwords would cross a network in the clear and nobody has said that this is meant."""
    if bool(options.certificate) != bool(options.certificate_key):
        raise GondolaError("TLS needs both: --certificate and --certificate-key.")
    if options.certificate or options.behind_proxy or options.plain or options.host in LOOPBACK:
        return
    raise GondolaError(
        f"At {options.host} passwords would cross the network in the clear. Give --certificate and --certificate-key, "
        "or --behind-proxy with a proxy that does TLS, or say --plain where you trust the whole network."
    )


def _serve(options: argparse.Namespace, folder: Path) -> int:
    findings = check(folder, quick=True)
    for one in findings:
        sys.stderr.write(f"{one}\n")
    if findings and findings[0].startswith("Nothing can be trusted"):
        return 2
    environment = environment_for(folder, secret_key(folder), GONDOLA_ASIDE=aside_path(folder), **_told(options))
    if (folder / DATABASE).exists() and _waiting(environment):
        print(f"Before the new version: backed up into {backup(folder, options.backups or folder / BACKUPS)}.")
    manage(environment, "migrate", "--verbosity", "0")
    address = _address(options)
    manage(environment, "welcome_owner", address)
    below = aside(environment)
    web = web_process(environment, "--host", options.host, "--port", str(options.port), *_of_uvicorn(options))
    print(f"Gondola is at {address} (stop it with Ctrl+C)", flush=True)
    into = options.backups or folder / BACKUPS
    keeper = Keeper(folder, into, options.backup_every_h, options.keep_backups, environment)
    return until_stopped(web, [queue(environment), *below], keeper.look)


def _told(options: argparse.Namespace) -> dict[str, str]:
    names = [one.strip() for one in options.names.split(",") if one.strip()]
    # behind a proxy or TLS of our own all is encrypted; otherwise it is plain, and was said to be
    plain = not (options.certificate or options.behind_proxy)
    told = {"GONDOLA_HOSTS": ",".join([*names, options.host, "127.0.0.1", "localhost"]), "GONDOLA_DEMO": "0"}
    told["GONDOLA_PLAIN"] = "1" if plain else "0"
    if options.behind_proxy:
        told["GONDOLA_BEHIND_PROXY"] = "1"
        told["GONDOLA_ORIGINS"] = ",".join(f"https://{one}" for one in names)
    return told


def _of_uvicorn(options: argparse.Namespace) -> list[str]:
    if options.certificate:
        return ["--ssl-certfile", str(options.certificate), "--ssl-keyfile", str(options.certificate_key),
                "--no-proxy-headers"]
    if options.behind_proxy:
        return ["--proxy-headers", "--forwarded-allow-ips", "127.0.0.1"]
    return ["--no-proxy-headers"]


def _address(options: argparse.Namespace) -> str:
    name = options.names.split(",")[0].strip() or options.host
    if options.behind_proxy:
        return f"https://{name}"
    return f"{'https' if options.certificate else 'http'}://{name}:{options.port}"


def _waiting(environment: dict[str, str]) -> bool:
    """Whether a newer version changes the database."""
    asked = management("migrate", "--check")
    return subprocess.run(asked, env=environment, capture_output=True, check=False).returncode != 0


@dataclass
class Keeper:
    """Does what is due while the others serve; what fails is said and tried again at its next hour."""

    folder: Path
    into: Path
    every_h: float
    most: int
    environment: dict[str, str]
    backed_up: float = field(default_factory=time.monotonic)
    tidied: float = field(default_factory=time.monotonic)

    def look(self) -> None:
        """Called again and again."""
        now = time.monotonic()
        if self.every_h > 0 and now - self.backed_up >= self.every_h * HOUR:
            self.backed_up = now
            self.back_up()
        if now - self.tidied >= TIDY_EVERY_H * HOUR:
            self.tidied = now
            subprocess.Popen([sys.executable, "-m", "gondola_core", "tidy"], env=self.environment)

    def back_up(self) -> None:
        """One backup more, and not more than are kept."""
        try:
            backup(self.folder, self.into)
            thin_backups(self.into, self.most)
        except GondolaError as error:
            sys.stderr.write(f"{error.message}\n")
