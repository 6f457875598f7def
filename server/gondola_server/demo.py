"""`gondola demo`: the server and its queue with the sample scenes, on loopback."""

from __future__ import annotations

import argparse
import sys

from keeping.folder import data_folder, secret_key

from .running import environment_for, manage, queue, until_stopped, web_process

LOOPBACK = ("127.0.0.1", "localhost")


def main(words: list[str]) -> int:
    """Prepare the data, then serve until stopped; ends what it started."""
    parser = argparse.ArgumentParser(prog="gondola demo", description=__doc__)
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--host", default=LOOPBACK[0])
    options = parser.parse_args(words)
    if options.host not in LOOPBACK:
        sys.stderr.write(
            "The demo signs everybody in by itself, so it is served on this machine only (127.0.0.1). "
            "For others to reach it, make a real installation: gondola serve.\n"
        )
        return 2
    folder = data_folder()
    environment = environment_for(folder, secret_key(folder), GONDOLA_DEMO="1", GONDOLA_HOSTS=",".join(LOOPBACK))
    manage(environment, "prepare_demo")
    web = web_process(environment, "--host", LOOPBACK[0], "--port", str(options.port), "--no-proxy-headers")
    print(f"Gondola is at http://127.0.0.1:{options.port} (stop it with Ctrl+C)", flush=True)
    return until_stopped(web, [queue(environment)])
