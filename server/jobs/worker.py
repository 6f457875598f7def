"""`gondola worker`: takes jobs from the queue, on any machine; needs the core and the queue's address."""

from __future__ import annotations

import argparse
import logging


def main(words: list[str]) -> int:
    """Work until stopped."""
    parser = argparse.ArgumentParser(prog="gondola worker", description=__doc__)
    parser.add_argument("--threads", type=int, default=1, help="jobs at once (default 1)")
    options = parser.parse_args(words)
    logging.basicConfig(level=logging.WARNING)

    from .queue import huey

    consumer = huey.create_consumer(
        workers=options.threads, worker_type="thread", periodic=False, initial_delay=0.05, max_delay=0.5, backoff=1.2,
        check_worker_health=True,
    )
    consumer.run()
    return 0
