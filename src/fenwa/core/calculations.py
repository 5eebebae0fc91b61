"""Every registered calculation, by name. Add a line for a new module."""

# ruff: noqa: F401

import fenwa.core.care.away
import fenwa.core.care.candidate
import fenwa.core.care.cans
import fenwa.core.care.coming
import fenwa.core.care.drinkers
import fenwa.core.care.first_plan
import fenwa.core.care.first_pour
import fenwa.core.care.fit
import fenwa.core.care.flush_round
import fenwa.core.care.holds
import fenwa.core.care.interval
import fenwa.core.care.pattern
import fenwa.core.care.phase
import fenwa.core.care.plan_ahead
import fenwa.core.care.prills
import fenwa.core.care.ramp
import fenwa.core.care.readiness
import fenwa.core.care.round
import fenwa.core.care.said
import fenwa.core.climate.air
import fenwa.core.climate.days
import fenwa.core.climate.light
import fenwa.core.diagnosis.likely
import fenwa.core.diagnosis.next_checks
import fenwa.core.evidence.answer
import fenwa.core.evidence.detectable
import fenwa.core.evidence.grade
import fenwa.core.evidence.pairs
import fenwa.core.evidence.seasons
import fenwa.core.evidence.together
import fenwa.core.evidence.trial
import fenwa.core.leaf.balance
import fenwa.core.leaf.colours
import fenwa.core.leaf.laid
import fenwa.core.leaf.line
import fenwa.core.leaf.marks
import fenwa.core.leaf.organs
import fenwa.core.leaf.photo
import fenwa.core.leaf.score
import fenwa.core.leaf.sizes
import fenwa.core.leaf.timing
import fenwa.core.mix.acidity
import fenwa.core.mix.batch
import fenwa.core.mix.calcium
import fenwa.core.mix.clear
import fenwa.core.mix.compare
import fenwa.core.mix.cost
import fenwa.core.mix.curve
import fenwa.core.mix.dilution
import fenwa.core.mix.dose
import fenwa.core.mix.elements
import fenwa.core.mix.feed
import fenwa.core.mix.fit
import fenwa.core.mix.grade
import fenwa.core.mix.headroom
import fenwa.core.mix.rescue
import fenwa.core.mix.school
import fenwa.core.mix.slope
import fenwa.core.mix.spoon
import fenwa.core.mix.stock
import fenwa.core.mix.urea
import fenwa.core.pot.calibration
import fenwa.core.pot.calibration_cycle
import fenwa.core.pot.conversion
import fenwa.core.pot.dunk
import fenwa.core.pot.flush
import fenwa.core.pot.flush_litres
import fenwa.core.pot.flush_methods
import fenwa.core.pot.flush_schools
import fenwa.core.pot.geometry
import fenwa.core.pot.live
import fenwa.core.pot.mixture
import fenwa.core.pot.observation
import fenwa.core.pot.reservoir
import fenwa.core.pot.rhythm_change
import fenwa.core.pot.root_zone
import fenwa.core.pot.salts
import fenwa.core.pot.steady
import fenwa.core.pot.together
import fenwa.core.pot.tray
import fenwa.core.pot.weights
import fenwa.core.water.acidify
import fenwa.core.water.blend
import fenwa.core.water.boil
import fenwa.core.water.choice
import fenwa.core.water.compensation
import fenwa.core.water.conductivity
import fenwa.core.water.dechlorinate
import fenwa.core.water.hardness
import fenwa.core.water.membrane
import fenwa.core.water.meters
import fenwa.core.water.need
import fenwa.core.water.permeate
import fenwa.core.water.remedy
import fenwa.core.water.report
import fenwa.core.water.scale_guess
import fenwa.core.water.settle
import fenwa.core.water.share_out
import fenwa.core.water.tds
import fenwa.core.water.temperature
import fenwa.core.water.usual
import fenwa.core.water.verdict
import fenwa.core.water.watch
from fenwa.core.errors import NotFound
from fenwa.core.registry import Calculation, registered


def list_calculations() -> list[Calculation]:
    """All registered calculations by name."""
    return [entry for _, entry in sorted(registered().items())]


def get_calculation(name: str) -> Calculation:
    """The calculation of that name, or NotFound with the names there are."""
    found = registered()
    if name not in found:
        raise NotFound(
            f"There is no calculation named “{name}”. There are: {', '.join(sorted(found))}.", pointer="/name"
        )
    return found[name]
