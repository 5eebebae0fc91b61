"""How a runoff was caught: what each way means, and the words it is asked in."""

from __future__ import annotations

from typing import Literal, get_args

Method = Literal["runoff", "first drops", "last", "pour-through", "dunk", "reservoir", "squeezed"]
Crust = Literal["none", "trace", "clear"]
Colour = Literal["clear", "tinted", "brown"]
Moist = Literal["wet", "moist", "barely damp", "dry"]
METHODS: tuple[Method, ...] = get_args(Method)
# as a form asks it; the first is the plain default
WORDS: dict[Method, str] = {
    "runoff": "all that ran out, mixed",
    "first drops": "the first drops",
    "last": "the last that ran out",
    "pour-through": "pour-through, about an hour after watering",
    "dunk": "the bath, after soaking",
    "reservoir": "tray or reservoir, stirred",
    "squeezed": "squeezed from the moss or medium",
}
# spread of ln(reading) about what the model says, priors of the pot science section 3.8
SPREAD_LN: dict[Method, float] = {
    "runoff": 0.20,
    "first drops": 0.20,
    "last": 0.20,
    "pour-through": 0.15,
    "dunk": 0.20,
    "reservoir": 0.25,
    "squeezed": 0.30,
}
# a reading of these needs the pour it ran out of; the others stand alone
OF_A_POUR: tuple[Method, ...] = ("runoff", "first drops", "last", "dunk")
# a crust says roughly what a pour-through would read, and how little it says (SD of ln); judgement, low confidence
CRUST_uS_cm: dict[Crust, float] = {"trace": 900.0, "clear": 1600.0}
CRUST_SPREAD_LN = 0.8
# share of the water it can hold that is left, by what a finger tells, and how little that says (SD of ln); judgement
MOIST_LEFT: dict[Moist, float] = {"wet": 0.95, "moist": 0.65, "barely damp": 0.35, "dry": 0.1}
MOIST_SPREAD_LN = 0.5
PT_WAIT_h = 1.0  # a pour-through is taken when the water has evened out for about this long
