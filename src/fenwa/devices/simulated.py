"""A pen that is not there: settles over seconds, with noise and drift, and can be unplugged.

It answers on the same line, in the same words, as a real one behind ``PenLink``.
"""

from __future__ import annotations

import json
import math
import random
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date

from fenwa.core.constants import DAYS_A_MONTH
from fenwa.core.water.compensation import ALPHA_KCL_PER_C, factor_to_25
from fenwa.devices.link import PenUnplugged

DEVICE = "urn:dev:ops:fenwa-simulated-pen"
STEP_s = 0.25  # time between two samples
SETTLE_s = 0.9  # time constant of conductivity
SETTLE_T_s = 1.6  # time constant of the temperature
ALPHA = 0.02  # the pen's own compensation
NOISE_SHARE, NOISE_uS_cm = 0.0012, 0.12
GAIN_AT_START, OFFSET_uS_cm = 0.985, 2.0
DRIFT_PER_MONTH = 0.008  # it loses this share a month since ``MADE_ON``
MADE_ON = date(2026, 1, 1)
AIR = (0.0, 21.0, 7.0)  # what a dry pen shows


@dataclass
class Dip:
    """What the pen stands in. [µS/cm at 25 °C, °C, pH]"""

    ec25_uS_cm: float
    temperature_C: float
    pH: float


class SimulatedPen:
    """A pen with its own faults; ``clock`` gives seconds, ``today`` the day for its drift."""

    def __init__(self, clock: Callable[[], float], today: Callable[[], date], seed: int = 7) -> None:
        self._clock, self._today = clock, today
        self._random = random.Random(seed)  # noqa: S311 - noise, not secrets
        self._plugged = True
        self._dip = Dip(*AIR)
        self._ec, self._T, self._pH = AIR
        self._running = False
        self._asked_at = self._last_at = clock()

    def dip(self, into: Dip) -> None:
        """Put the pen into a water."""
        self._dip = into

    def plug(self, plugged: bool) -> None:
        """Plug the pen in or pull it out."""
        self._plugged = plugged
        self._running = self._running and plugged

    @property
    def plugged(self) -> bool:
        """Whether it is plugged in."""
        return self._plugged

    def gain(self) -> float:
        """Its slope on this day: it tires."""
        return GAIN_AT_START - DRIFT_PER_MONTH * max(0, (self._today() - MADE_ON).days) / DAYS_A_MONTH

    def ask(self, request: str) -> None:
        """``start`` begins to send, ``stop`` ends it."""
        if not self._plugged:
            raise PenUnplugged("The pen is not plugged in.")
        self._running = request == "start"
        self._asked_at = self._last_at = self._clock()

    def lines(self) -> list[str]:
        """A SenML pack for each quarter of a second since the last call."""
        if not self._plugged:
            raise PenUnplugged("The pen was unplugged.")
        out = []
        now = self._clock()
        while self._running and self._last_at + STEP_s <= now:
            self._last_at += STEP_s
            out.append(self._sample())
        return out

    def close(self) -> None:
        """Nothing to let go of."""

    def _sample(self) -> str:
        near, near_T = math.exp(-STEP_s / SETTLE_s), math.exp(-STEP_s / SETTLE_T_s)
        self._T = self._dip.temperature_C + (self._T - self._dip.temperature_C) * near_T
        self._ec = self._dip.ec25_uS_cm + (self._ec - self._dip.ec25_uS_cm) * near
        self._pH = self._dip.pH + (self._pH - self._dip.pH) * near
        # the cell sees the water at its temperature; the pen compensates by its own line, with its own thermometer
        at_T = self._ec / factor_to_25(min(max(self._dip.temperature_C, 0.0), 60.0), "linear", ALPHA_KCL_PER_C)
        shown = at_T * factor_to_25(min(max(self._T, 0.0), 60.0), "linear", ALPHA) * self.gain() + OFFSET_uS_cm
        noise = self._random.gauss(0.0, NOISE_uS_cm + NOISE_SHARE * shown)
        pack = [
            {
                "bn": f"{DEVICE}:",
                "bt": round(self._last_at - self._clock(), 2),
                "n": "ec",
                "u": "S/m",
                "v": round(max(0.0, shown + noise) / 10_000, 8),
            },
            {"n": "temperature", "u": "Cel", "v": round(self._T + self._random.gauss(0, 0.03), 2)},
            {"n": "ph", "u": "pH", "v": round(self._pH + self._random.gauss(0, 0.01), 2)},
        ]
        return json.dumps(pack)
