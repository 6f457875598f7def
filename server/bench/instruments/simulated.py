"""A simulated scale and thermometer: noise, drift, tare, overload, pulled plugs; the same from the same seed."""

from __future__ import annotations

from collections.abc import Callable
from random import Random

from .protocol import Mass, Temperature

POURS_G_S = 15.0
"""grams a second that a hand pours"""
SLOWS = 0.4
"""Share of what is left that a hand pours in a second near the mark."""
STEADY_AFTER_S = 0.8
"""seconds without a change after which a scale is steady"""
NOISE_STEPS = 0.25
"""Noise of a scale, in its steps."""
NOISE_K, STEP_K = 0.12, 0.1
"""Noise and step of a thermometer."""

Truth = Callable[[float], tuple[float | None, float | None]]
"""What probes in the resin and in the room would show at a time [degrees C]; None where there is none."""


class Scale:
    """A kitchen scale with a cup on it.

    most_g   overloaded above
    drift    grams that it creeps in an hour
    shaky    by how much more than asked a hand pours, as a share
    """

    def __init__(
        self, *, step_g: float = 0.1, most_g: float = 5000.0, drift_g_h: float = 0.3, shaky: float = 0.0, seed: int = 1
    ) -> None:
        self._random = Random(seed)
        self._step_g, self._most_g, self._drift, self.shaky = step_g, most_g, drift_g_h / 3600, shaky
        self._on_g, self._tare_g, self._to_come_g = 0.0, 0.0, 0.0
        self._moved_at, self._at, self.plugged = 0.0, 0.0, True

    def tell(self, command: str) -> bool:
        """A command, as hands do it: `tare`, `pour 82.6`, `put 20`, `take off`, `unplug`, `plug`. False for another."""
        words = command.split()
        if words[:1] in (["pour"], ["put"]) and len(words) == 2:
            try:
                grams = float(words[1])
            except ValueError:
                return False
            if not -50_000.0 <= grams <= 50_000.0:
                return False
            if words[0] == "pour":
                self._to_come_g += grams * (1 + self.shaky)
            else:
                self._on_g += grams
                self._moved_at = self._at
            return True
        return self._press(command.strip())

    def _press(self, command: str) -> bool:
        if command == "tare":
            self._tare_g = self._on_g
        elif command == "take off":
            self._on_g = self._to_come_g = 0.0
        elif command in ("plug", "unplug"):
            self.plugged = command == "plug"
        else:
            return False
        self._moved_at = self._at
        return True

    def reading(self, at_s: float) -> list[Mass]:
        """What it shows at a time of its own."""
        gone, self._at = max(0.0, at_s - self._at), at_s
        if self._to_come_g > 0:
            more = min(self._to_come_g, gone * max(POURS_G_S * min(1.0, SLOWS * self._to_come_g), 0.8))
            self._on_g += more
            self._to_come_g -= more
            self._moved_at = at_s
        self._on_g += self._drift * gone
        if not self.plugged:
            return []
        if self._on_g > self._most_g:
            return [Mass(None, False)]
        shown = self._on_g - self._tare_g + self._random.gauss(0.0, NOISE_STEPS * self._step_g)
        return [Mass(round(round(shown / self._step_g) * self._step_g, 4), at_s - self._moved_at > STEADY_AFTER_S)]


class Thermometer:
    """Two probes: in the resin, and in the room.

    truth   what they would show at a time, None where there is none
    """

    def __init__(self, truth: Truth, *, seed: int = 1) -> None:
        self._truth, self._random = truth, Random(seed)
        self._fault, self._by_k = "none", 0.0
        self._stuck: list[float | None] = [None, None]

    def tell(self, command: str) -> bool:
        """`fault none`, `fault open`, `fault stuck`, `fault offset 5`. False for anything else."""
        words = command.split()
        if words[:1] != ["fault"] or len(words) < 2 or words[1] not in ("none", "open", "stuck", "offset"):
            return False
        try:
            self._by_k = float(words[2]) if words[1] == "offset" else 0.0
        except (IndexError, ValueError):
            return False
        self._fault = words[1]
        return True

    def reading(self, at_s: float) -> list[Temperature]:
        """Both channels at a time of its own."""
        found = []
        for index, value in enumerate(self._truth(at_s)):
            if self._fault == "stuck":
                value = self._stuck[index]
            self._stuck[index] = value
            if value is None or (self._fault == "open" and index == 0):
                found.append(Temperature(index + 1, None))
                continue
            noisy = value + self._by_k * (index == 0) + self._random.gauss(0.0, NOISE_K)
            found.append(Temperature(index + 1, round(round(noisy / STEP_K) * STEP_K, 2)))
        return found
