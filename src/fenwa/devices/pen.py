"""A reading of a pen while it settles: lines in, a trace and a stable value out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime

from fenwa.core.errors import DomainError
from fenwa.core.water.settle import PenSample, Settled, pen_settled
from fenwa.devices.link import PenLink, PenUnplugged
from fenwa.formats.senml import SenmlValue, parse_senml

LONGEST_s = 60.0  # a pen that has not settled by then will not
MAX_SAMPLES = 600


@dataclass(frozen=True)
class TracePoint:
    """A sample of the trace. [s, µS/cm, °C]"""

    t_s: float
    ec_uS_cm: float
    temperature_C: float | None
    pH: float | None


@dataclass
class PenReading:
    """One reading from ``start`` on. ``problem`` says why it broke off."""

    link: PenLink
    now: Callable[[], datetime] = field(default=lambda: datetime.now(UTC))
    device: str = ""
    trace: list[TracePoint] = field(default_factory=list)
    problem: str = ""
    _start: datetime | None = None

    def begin(self) -> None:
        """Ask the pen to send; what an earlier reading left behind is dropped."""
        self.trace, self.problem, self._start = [], "", None
        try:
            self.link.lines()
            self.link.ask("start")
        except PenUnplugged as error:
            self.problem = f"{error} Plug it in, or type the value."

    def poll(self) -> Settled:
        """Take what the pen sent since, and say whether it has settled."""
        if not self.problem:
            try:
                for line in self.link.lines():
                    self._take(parse_senml(line, self.now()))
            except PenUnplugged as error:
                self.problem = f"{error} Nothing was kept. Plug it in and read again, or type the value."
            except DomainError as error:
                self.problem = f"The pen sent something unreadable: {error.detail}"
        found = pen_settled(samples=[PenSample(p.t_s, p.ec_uS_cm) for p in self.trace]).result
        if not found.settled and self.trace and self.trace[-1].t_s > LONGEST_s and not self.problem:
            self.problem = f"The pen has not settled in {LONGEST_s:.0f} seconds. Stir, hold it still, and read again."
        return found

    def _take(self, values: list[SenmlValue]) -> None:
        by = {v.quantity: v for v in values}
        ec = by.get("ec")
        if ec is None or len(self.trace) >= MAX_SAMPLES:
            return
        self.device = ec.device
        self._start = self._start or ec.at
        temperature, pH = by.get("temperature"), by.get("pH")
        self.trace.append(
            TracePoint(
                round((ec.at - self._start).total_seconds(), 3),
                ec.value,
                temperature.value if temperature else None,
                pH.value if pH else None,
            )
        )
