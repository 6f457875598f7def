"""`gondola demo`: the server and its queue with the sample scenes, on loopback."""

from __future__ import annotations

import argparse
import os
import secrets
import signal
import subprocess
import sys
from pathlib import Path

SERVER = Path(__file__).resolve().parent.parent


def main(words: list[str]) -> int:
    """Prepare the data, then serve until stopped; ends what it started."""
    parser = argparse.ArgumentParser(prog="gondola demo", description=__doc__)
    parser.add_argument("--port", type=int, default=8000)
    options = parser.parse_args(words)
    environment = _environment()
    manage = [sys.executable, str(SERVER / "manage.py")]
    subprocess.run([*manage, "prepare_demo"], check=True, env=environment)
    web = [
        sys.executable, "-m", "uvicorn", "gondola_server.asgi:application", "--app-dir", str(SERVER), "--host",
        "127.0.0.1", "--port", str(options.port), "--log-level", "warning", "--no-access-log",
        "--timeout-graceful-shutdown", "3", "--lifespan", "off",
    ]
    queue = [sys.executable, "-m", "gondola_core", "worker"]
    print(f"Gondola is at http://127.0.0.1:{options.port} (stop it with Ctrl+C)", flush=True)
    running = [subprocess.Popen(command, env=environment) for command in (web, queue)]
    return _until_stopped(running)


def _environment() -> dict[str, str]:
    data = Path(os.environ.get("GONDOLA_DATA", SERVER.parent / "data"))
    data.mkdir(parents=True, exist_ok=True)
    key = data / "secret_key"
    if not key.exists():
        key.touch(mode=0o600)
        key.write_text(secrets.token_urlsafe(48))
    return {
        **os.environ,
        "GONDOLA_DATA": str(data),
        "GONDOLA_DEMO": "1",
        "GONDOLA_SERVES": "1",
        "GONDOLA_HOSTS": "127.0.0.1,localhost",
        "GONDOLA_SECRET_KEY": os.environ.get("GONDOLA_SECRET_KEY", key.read_text()),
        "DJANGO_SETTINGS_MODULE": "gondola_server.settings",
    }


def _until_stopped(running: list[subprocess.Popen[bytes]]) -> int:
    def stop(*_signal: object) -> None:
        for process in running:
            if process.poll() is None:
                process.send_signal(signal.SIGINT if process is running[1] else signal.SIGTERM)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    while True:
        for process in running:
            try:
                code = process.wait(timeout=0.5)
            except subprocess.TimeoutExpired:
                continue
            stop()
            for other in running:
                try:
                    other.wait(timeout=10)
                except subprocess.TimeoutExpired:
                    other.kill()
            return 0 if code in (0, -signal.SIGTERM, -signal.SIGINT) else code
