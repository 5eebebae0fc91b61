"""A logger of air that is not there: posts SenML to the inbox, as a real one would."""

from __future__ import annotations

import json
import math
import random
import threading
import urllib.request
from collections.abc import Callable
from datetime import datetime

DEVICE = "urn:dev:ops:fenwa-simulated-logger"
EVERY_s = 60.0
NIGHT_C, DAY_C = 17.4, 22.8
DRY_PCT, SWING_PCT = 35.0, 5.0
ANSWER_s = 5.0


def air_at(at: datetime) -> tuple[float, float]:
    """Warmth and humidity of a heated winter garden at a local moment, the same for the same moment. [°C, %]"""
    hour = at.hour + at.minute / 60
    sun = max(0.0, math.sin(math.pi * (hour - 7) / 11)) if 7 <= hour <= 18 else 0.0
    noise = random.Random(at.replace(second=0, microsecond=0).isoformat())  # noqa: S311 - noise, not secrets
    celsius = NIGHT_C + (DAY_C - NIGHT_C) * sun + noise.gauss(0, 0.15)
    humidity = DRY_PCT + SWING_PCT * (0.5 - sun) + noise.gauss(0, 0.6)
    return round(celsius, 2), round(min(100.0, max(0.0, humidity)), 1)


def pack(now: datetime) -> str:
    """What the logger sends at a moment: a SenML pack of warmth and humidity (RFC 8428)."""
    celsius, humidity = air_at(now)
    return json.dumps(
        [
            {"bn": f"{DEVICE}:", "bt": round(now.timestamp()), "n": "temperature", "u": "Cel", "v": celsius},
            {"n": "humidity", "u": "%RH", "v": humidity},
        ]
    )


class SimulatedLogger:
    """Posts to an inbox every minute until it is stopped; a server that is gone is tried again."""

    def __init__(self, inbox: str, clock: Callable[[], datetime], every_s: float = EVERY_s) -> None:
        self._inbox, self._clock, self._every = inbox, clock, every_s
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, name="simulated logger", daemon=True)

    def start(self) -> None:
        """Begin to post."""
        self._thread.start()

    def stop(self) -> None:
        """Post no more."""
        self._stop.set()

    def _run(self) -> None:
        while not self._stop.wait(self._every):
            self.post()

    def post(self) -> bool:
        """Send one pack; whether it was taken."""
        request = urllib.request.Request(  # noqa: S310 - our own address
            self._inbox, pack(self._clock()).encode(), {"Content-Type": "application/senml+json"}
        )
        try:
            with urllib.request.urlopen(request, timeout=ANSWER_s) as answer:  # noqa: S310
                return bool(answer.status == 201)
        except OSError:
            return False
