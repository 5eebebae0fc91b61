"""Imports every module that registers a calculation. Add a line for a new one."""

import fenwa.core.care.round
import fenwa.core.mix.batch
import fenwa.core.mix.dose
import fenwa.core.mix.label
import fenwa.core.mix.stock
import fenwa.core.pot.flush
import fenwa.core.pot.geometry
import fenwa.core.pot.root_zone
import fenwa.core.water.blend
import fenwa.core.water.conductivity
import fenwa.core.water.tds
import fenwa.core.water.temperature
import fenwa.core.water.verdict  # noqa: F401
