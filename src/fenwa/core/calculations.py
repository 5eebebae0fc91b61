"""Imports every module that registers a calculation. Add a line for a new one."""

# ruff: noqa: F401

import fenwa.core.care.round
import fenwa.core.mix.batch
import fenwa.core.mix.dose
import fenwa.core.mix.label
import fenwa.core.mix.stock
import fenwa.core.pot.flush
import fenwa.core.pot.geometry
import fenwa.core.pot.root_zone
import fenwa.core.water.acidify
import fenwa.core.water.blend
import fenwa.core.water.boil
import fenwa.core.water.compensation
import fenwa.core.water.conductivity
import fenwa.core.water.dechlorinate
import fenwa.core.water.hardness
import fenwa.core.water.membrane
import fenwa.core.water.meters
import fenwa.core.water.remedy
import fenwa.core.water.report
import fenwa.core.water.scale_guess
import fenwa.core.water.settle
import fenwa.core.water.share_out
import fenwa.core.water.tds
import fenwa.core.water.temperature
import fenwa.core.water.verdict
import fenwa.core.water.watch
