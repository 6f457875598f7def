"""A simulated device behind a port on loopback: it streams its readings and hears commands, a line each."""

from __future__ import annotations

import contextlib
import socketserver
import threading
import time
from typing import Any, Protocol

from .protocol import LONGEST_LINE, Mass, Temperature, written


class Device(Protocol):
    """What can be served."""

    def tell(self, command: str) -> bool: ...

    def reading(self, at_s: float) -> list[Any]: ...


class Served(socketserver.ThreadingTCPServer):
    """A device on 127.0.0.1; port 0 takes a free one. Used as a context it is closed at the end."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, device: Device, port: int = 0, a_second: float = 10.0) -> None:
        super().__init__(("127.0.0.1", port), _Listener)
        self.device, self.every_s = device, 1.0 / a_second
        self.lock, self._begun = threading.Lock(), time.monotonic()

    @property
    def port(self) -> int:
        """Where it is."""
        return int(self.server_address[1])

    def start(self) -> Served:
        """Serve from a thread of its own."""
        threading.Thread(target=self.serve_forever, daemon=True).start()
        return self

    def lines(self) -> list[str]:
        """What it says now."""
        with self.lock:
            readings: list[Mass | Temperature] = self.device.reading(time.monotonic() - self._begun)
        return [written(one) for one in readings]

    def hear(self, command: str) -> bool:
        """A command for it."""
        with self.lock:
            return self.device.tell(command)


class _Listener(socketserver.StreamRequestHandler):
    server: Served

    def handle(self) -> None:
        threading.Thread(target=self._hear, daemon=True).start()
        with contextlib.suppress(OSError):
            while True:
                for line in self.server.lines():
                    self.wfile.write(f"{line}\n".encode())
                time.sleep(self.server.every_s)

    def _hear(self) -> None:
        with contextlib.suppress(OSError, ValueError):
            while line := self.rfile.readline(LONGEST_LINE + 1):
                if not self.server.hear(line.decode("ascii", "replace").strip()):
                    self.wfile.write(b"what\n")
