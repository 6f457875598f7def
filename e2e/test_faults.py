"""Faults of a real installation: a body larger than anything that is read, and the worker lost in a march."""

from __future__ import annotations

import json
import os
import signal
import socket
import time
import unittest
from collections.abc import Callable
from pathlib import Path

from django.test import tag

from e2e.served import ServedDemo

MEGABYTE = b"x" * 2**20


def children_of(parent: int, word: str) -> list[int]:
    """Processes that another has started and whose command holds a word."""
    found = []
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                of = int((entry / "stat").read_text().rsplit(")", 1)[1].split()[1])
                command = (entry / "cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
            except (OSError, IndexError, ValueError):
                continue
            if of == parent and word in command.split():
                found.append(int(entry.name))
    return found


class Faults(ServedDemo):
    @tag("long")
    def test_what_can_go_wrong_is_said_and_the_others_go_on(self) -> None:
        demo = self.start()
        self.ask("/api/session")
        for name, kind, head, count in (
            ("a body of 60 MB", "application/json", b"Content-Length: %d\r\n" % (60 * 2**20), 60),
            ("a body that does not say how long it is", "application/json", b"Transfer-Encoding: chunked\r\n", 70),
            ("a file of 600 MB", "application/octet-stream", b"Content-Length: %d\r\n" % (600 * 2**20), 600),
        ):
            with self.subTest(name):
                status, body = self.sent(kind, head, count)
                self.assertEqual(status, 413)
                self.assertRegex(json.loads(body)["message"], r"over \d+ MB")
        self.worker_lost(demo.pid)
        self.assertIsNone(demo.poll())

    def sent(self, kind: str, head: bytes, count: int) -> tuple[int, bytes]:
        """What a server answers to so many megabytes, all of them sent before anything is read."""
        with socket.create_connection(("127.0.0.1", self.port), timeout=120) as wire:
            wire.sendall(
                b"POST /api/scenes HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: " + kind.encode() + b"\r\n" + head
                + b"\r\n"
            )
            chunked = b"chunked" in head
            for _ in range(count):
                wire.sendall(b"100000\r\n" + MEGABYTE + b"\r\n" if chunked else MEGABYTE)
            if chunked:
                wire.sendall(b"0\r\n\r\n")
            answer = b""
            while more := wire.recv(65536):
                answer += more
        first, _, body = answer.partition(b"\r\n\r\n")
        return int(first.split()[1]), body

    def worker_lost(self, server: int) -> None:
        job = self.ask("/api/jobs/fine-march", {"scene": self.ask("/api/scenes/1")["document"]})
        self.until(lambda: self.ask(f"/api/jobs/{job['id']}")["progress_fraction"] > 0.02)
        lost = children_of(server, "worker")
        self.assertEqual(len(lost), 1)
        os.kill(lost[0], signal.SIGKILL)
        self.until(lambda: self.ask(f"/api/jobs/{job['id']}")["state"] == "done")
        self.assertEqual(self.ask(f"/api/jobs/{job['id']}/fine-march")["grade"], "fine")
        self.assertNotEqual(children_of(server, "worker"), lost)

    def until(self, true: Callable[[], bool]) -> None:
        for _ in range(600):
            if true():
                return
            time.sleep(0.2)
        self.fail("it did not come to that within two minutes")


if __name__ == "__main__":
    unittest.main()
