"""Who listens to the devices of a person: a thread a device, its last reading, and a word to it."""

from __future__ import annotations

import contextlib
import socket
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from .protocol import LONGEST_LINE, Kind, Mass, Temperature, parse

QUIET_S = 2.0
"""seconds without a reading after which a device counts as unplugged"""
AGAIN_S = 1.0
"""seconds until a lost device is called again"""
Heard = Callable[[int, Temperature], None]


@dataclass(slots=True)
class Link:
    """One device: where it is, what it said last, and its thread."""

    kind: Kind
    port: int
    simulated: bool
    number: int = 0
    heard_at: float = 0.0
    mass: Mass | None = None
    temperatures: dict[int, Temperature] = field(default_factory=dict)
    over: bool = False
    socket: socket.socket | None = None

    def told(self) -> dict[str, Any]:
        """Its state as the page reads it."""
        plugged = time.monotonic() - self.heard_at < QUIET_S if self.heard_at else False
        told: dict[str, Any] = {
            "kind": self.kind, "port": self.port, "simulated": self.simulated, "plugged": plugged,
        }
        if self.kind == "scale":
            mass = self.mass if plugged else None
            told |= {
                "mass_g": None if mass is None else mass.mass_g, "steady": mass is not None and mass.steady,
                "overloaded": mass is not None and mass.mass_g is None,
            }
        else:
            for name, channel in (("resin_c", 1), ("room_c", 2)):
                read = self.temperatures.get(channel) if plugged else None
                told[name] = None if read is None else read.measured_c
        return told


class Hub:
    """The devices of all who have some, by owner and kind. `heard` is called with each reading of a thermometer."""

    def __init__(self, heard: Heard | None = None) -> None:
        self._links: dict[tuple[int, str], Link] = {}
        self._servers: dict[tuple[int, str], Any] = {}
        self._lock, self._heard = threading.Lock(), heard

    def connect(self, owner_id: int, kind: Kind, port: int, served: Any = None) -> None:
        """Listen to a device on loopback from now on; one that was listened to before is let go.

        served  a simulated one that was started for it, and is stopped with it
        """
        self.let_go(owner_id, kind)
        link = Link(kind=kind, port=port, simulated=served is not None)
        with self._lock:
            self._links[(owner_id, kind)] = link
            if served is not None:
                self._servers[(owner_id, kind)] = served
        threading.Thread(target=self._listen, args=(owner_id, link), daemon=True).start()

    def let_go(self, owner_id: int, kind: str) -> None:
        """Listen no more; a simulated one is stopped."""
        with self._lock:
            link, served = self._links.pop((owner_id, kind), None), self._servers.pop((owner_id, kind), None)
        if link is not None:
            link.over = True
            if link.socket is not None:
                with contextlib.suppress(OSError):
                    link.socket.shutdown(socket.SHUT_RDWR)
        if served is not None:
            served.shutdown()
            served.server_close()

    def say(self, owner_id: int, kind: str, line: str) -> bool:
        """A word to a device; False where there is none that hears, or none that ever spoke as a device does."""
        with self._lock:
            link = self._links.get((owner_id, kind))
        if link is None or link.socket is None or not link.number or "\n" in line or len(line) > LONGEST_LINE:
            return False
        try:
            link.socket.sendall(f"{line}\n".encode())
        except OSError:
            return False
        return True

    def told(self, owner_id: int) -> list[dict[str, Any]]:
        """The devices of an owner."""
        with self._lock:
            return [link.told() for (owner, _), link in self._links.items() if owner == owner_id]

    def _listen(self, owner_id: int, link: Link) -> None:
        while not link.over:
            try:
                with socket.create_connection(("127.0.0.1", link.port), timeout=QUIET_S) as wire:
                    link.socket = wire
                    self._hear_from(owner_id, link, wire)
            except OSError:
                pass
            link.socket = None
            if not link.over:
                time.sleep(AGAIN_S)

    def _hear_from(self, owner_id: int, link: Link, wire: socket.socket) -> None:
        left = b""
        while not link.over:
            try:
                heard = wire.recv(4096)
            except TimeoutError:
                continue
            if not heard:
                return
            *lines, left = (left + heard).split(b"\n")
            left = left[-LONGEST_LINE:]
            for line in lines:
                self._take(owner_id, link, parse(line.decode("ascii", "replace")))

    def _take(self, owner_id: int, link: Link, reading: Mass | Temperature | None) -> None:
        if reading is None:
            return
        link.heard_at, link.number = time.monotonic(), link.number + 1
        if isinstance(reading, Mass):
            link.mass = reading
            return
        link.temperatures[reading.channel] = reading
        if self._heard is not None:
            self._heard(owner_id, reading)
