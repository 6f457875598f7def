"""The queue and its one task. No Django and no database here: a worker needs the core and the queue's address.

Everything that a worker tells of a job goes through the queue's own store, under keys of the job's id:

    lease-ID-N   who holds attempt N; only one can put it there
    beat-ID-N    changes while the holder lives
    told-ID      share that is done, and words
    cancel-ID    there once it is to end
    done-ID      what came out; only the first is kept
"""

from __future__ import annotations

import json
import logging
import os
import threading
import time
import uuid
from typing import Any

from huey import Huey, RedisHuey, SqliteHuey

from gondola_server.where import usual_data

log = logging.getLogger(__name__)

NAME = "gondola"
BEAT_EVERY = 1.0
"""seconds between two beats of a holder"""
OUR_FAULT = "This stopped with a fault of Gondola's own; nothing is lost, and the draft stands."
LOOK_EVERY = 0.2
"""seconds between two looks whether a job is to end, and two notes of its progress"""


def huey_from(environment: dict[str, str], immediate: bool = False) -> Huey:
    """The queue at GONDOLA_REDIS_URL, or in a file of GONDOLA_DATA."""
    url = environment.get("GONDOLA_REDIS_URL")
    if url and not immediate:
        return RedisHuey(NAME, url=url)
    folder = usual_data(environment)
    folder.mkdir(parents=True, exist_ok=True)
    return SqliteHuey(NAME, filename=str(folder / "queue.sqlite3"), immediate=immediate)


huey = huey_from(dict(os.environ), immediate=os.environ.get("GONDOLA_QUEUE") == "immediate")


class Ended(Exception):
    """A job was cancelled, or somebody else has taken it up."""


@huey.task()
def work(job_id: str, attempt: int, kind: str, document: str, parameters: dict[str, Any]) -> None:
    """Work one attempt of a job: whoever takes its lease first, and nobody twice."""
    from .kinds import studied

    store = Store(huey)
    if not store.take(job_id, attempt):
        return
    with Beating(store, job_id, attempt):
        telling = Telling(store, job_id, attempt)
        try:
            outcome = studied(kind, document, parameters, telling)
        except Ended:
            outcome = {"state": "cancelled"}
            if not store.is_cancelled(job_id):
                return
        except Exception as flaw:
            log.error("job %s failed", job_id, exc_info=flaw)
            outcome = {"state": "failed", "message": OUR_FAULT}
        store.finish(job_id, outcome)


class Store:
    """What is told of jobs, in the queue's store; the same for a file and for Redis."""

    def __init__(self, queue: Huey) -> None:
        self._queue = queue

    def take(self, job_id: str, attempt: int) -> bool:
        """True for the first who asks for an attempt that is still wanted."""
        if self.outcome(job_id) is not None:
            return False
        mine = bool(self._queue.storage.put_if_empty(f"lease-{job_id}-{attempt}", b"held"))
        if mine:
            self.beat(job_id, attempt)
        return mine

    def is_taken(self, job_id: str, attempt: int) -> bool:
        """True once somebody holds it."""
        return bool(self._queue.storage.has_data_for_key(f"lease-{job_id}-{attempt}"))

    def beat(self, job_id: str, attempt: int) -> None:
        """The holder lives."""
        self._put(f"beat-{job_id}-{attempt}", uuid.uuid4().hex)

    def last_beat(self, job_id: str, attempt: int) -> Any:
        """Something that changes while the holder lives."""
        return self._peek(f"beat-{job_id}-{attempt}")

    def tell(self, job_id: str, share: float, words: str) -> None:
        """How far it is."""
        self._put(f"told-{job_id}", {"share": round(share, 3), "words": words})

    def told(self, job_id: str) -> dict[str, Any]:
        """How far it is; nothing if nobody has told."""
        return dict(self._peek(f"told-{job_id}") or {})

    def cancel(self, job_id: str) -> None:
        """It is to end."""
        self._put(f"cancel-{job_id}", True)

    def is_cancelled(self, job_id: str) -> bool:
        """True if it is to end."""
        return bool(self._queue.storage.has_data_for_key(f"cancel-{job_id}"))

    def finish(self, job_id: str, outcome: dict[str, Any]) -> bool:
        """What came out; False if something has come out already."""
        return bool(self._queue.storage.put_if_empty(f"done-{job_id}", json.dumps(outcome).encode()))

    def outcome(self, job_id: str) -> dict[str, Any] | None:
        """What came out."""
        found = self._peek(f"done-{job_id}")
        return None if found is None else dict(found)

    def forget(self, job_id: str, attempts: int) -> None:
        """Take all of a job out of the store, but that it is over."""
        self._put(f"done-{job_id}", {"state": "over"})
        for attempt in range(attempts + 1):
            self._queue.storage.delete_data(f"beat-{job_id}-{attempt}")
        for word in ("told", "cancel"):
            self._queue.storage.delete_data(f"{word}-{job_id}")

    def waiting_count(self) -> int:
        """Attempts that nobody has taken out of the queue."""
        return int(self._queue.pending_count())

    def _put(self, key: str, value: Any) -> None:
        self._queue.storage.put_data(key, json.dumps(value).encode())

    def _peek(self, key: str) -> Any:
        from huey.constants import EmptyData

        found = self._queue.storage.peek_data(key)
        return None if found is EmptyData else json.loads(bytes(found))


class Beating:
    """While it is entered, a thread shows that the holder of an attempt lives."""

    def __init__(self, store: Store, job_id: str, attempt: int) -> None:
        self._store, self._job_id, self._attempt = store, job_id, attempt
        self._over = threading.Event()
        self._thread = threading.Thread(target=self._beat, daemon=True)

    def __enter__(self) -> Beating:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._over.set()
        self._thread.join()

    def _beat(self) -> None:
        while not self._over.wait(BEAT_EVERY):
            self._store.beat(self._job_id, self._attempt)


class Telling:
    """Called with the share that is done: notes it, and raises Ended where the job is to end."""

    def __init__(self, store: Store, job_id: str, attempt: int) -> None:
        self._store, self._job_id, self._attempt = store, job_id, attempt
        self._looked = 0.0

    def __call__(self, share: float, words: str = "") -> None:
        if time.monotonic() - self._looked < LOOK_EVERY:
            return
        self._looked = time.monotonic()
        if self._store.is_cancelled(self._job_id) or self._store.is_taken(self._job_id, self._attempt + 1):
            raise Ended
        self._store.tell(self._job_id, share, words)
