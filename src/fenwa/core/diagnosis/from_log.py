"""Signs, findings and leaves read off a log: what was seen, what was looked for and not, what the log tells."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from statistics import median
from typing import Literal

from fenwa.core.data.diagnosis_tables import findings, signs
from fenwa.core.diagnosis.advice import PlantNow
from fenwa.core.diagnosis.evidence import Exposure, Finding, FormedLeaf, SeenSign
from fenwa.core.diagnosis.exposures import DRY_POINTS, exposures_of
from fenwa.core.diagnosis.log_facts import IllLog, IllLook
from fenwa.core.leaf.line import RESTING
from fenwa.core.leaf.marks import SeenMark

LOOKS_DAYS = 120  # marks first seen longer ago are history
ABSENT_DAYS = 45  # what the newest look did not find is absent for so long
RUNOFF_DAYS, AIR_DAYS, FELT_DAYS, WATER_DAYS = 60, 30, 10, 60
MOVED_DAYS, SETTLED_DAYS = 30, 120
LEAVES_DAYS = 400
WET_AFTER_DAYS = 5
FEW_TIPS = 0.34  # of the tips seen: fewer alive is a sign
SMALL_SHARE, SMALL_RUN = 0.9, 2  # of usual, and how many leaves in a row
ENOUGH_NIGHTS = 5
LEAF_MARKS = ("tip", "rim", "crisp", "spot", "pale", "yellow-green")

# what a mark says, by its kind; texture and medium decide where a mark can be two signs
_BY_MARK: dict[str, str] = {
    "rim": "margin_brown_all_round",
    "crisp": "tip_crisp_dry",
    "spot": "spots",
    "yellow oldest": "yellow_oldest_leaf",
    "yellow": "yellow_several_leaves",
    "pale": "pale_new_growth",
    "yellow-green": "pale_new_growth",
    "curl": "leaf_curl",
    "crust": "white_crust",
    "algae": "green_surface_algae",
    "rot": "black_base",
}
# what a look for marks would have found
_LOOKED_FOR = tuple(dict.fromkeys([*_BY_MARK.values(), "tip_brown_only", "tip_soft_dark"]))


@dataclass(frozen=True)
class IllFacts:
    """What a log says: signs with their first day, findings, leaves, exposures, and how the plant is now."""

    seen: tuple[SeenSign, ...]
    found: tuple[Finding, ...]
    leaves: tuple[FormedLeaf, ...]
    exposures: tuple[Exposure, ...]
    now: PlantNow
    not_looked_for: tuple[str, ...]


def signs_of_mark(mark: SeenMark, moist: bool | None) -> list[str]:
    """The signs a mark is. Limp without a felt medium is none of the two yet."""
    if mark.kind == "tip":
        if mark.texture in ("soft", "water-soaked"):
            return ["tip_soft_dark"]
        return ["tip_brown_only", "tip_crisp_dry"] if mark.texture == "crisp" else ["tip_brown_only"]
    if mark.kind == "limp":
        return [] if moist is None else ["wilt_wet_medium" if moist else "wilt_dry_medium"]
    return [_BY_MARK[mark.kind]] if mark.kind in _BY_MARK else []


def read_log(log: IllLog) -> IllFacts:
    """Everything the log says of what is wrong with a plant."""
    moist = _moist(log)
    looks = [x for x in log.looks if (log.today - x.on).days <= LOOKS_DAYS and x.on <= log.today]
    first: dict[str, date] = {}
    for look in looks:
        for m in look.marks:
            if m.old or m.cause in ("rubbed", "accident"):
                continue  # an old scar and a rubbed edge are no sign of illness
            for sign in signs_of_mark(m, moist):
                first.setdefault(sign, m.on)
    _of_organs(log, looks, first)
    _of_sizes(log, first)
    absent = _absent(log, looks, first, moist)
    seen = [SeenSign(k, True, on) for k, on in first.items()] + [SeenSign(k, False) for k in absent]
    told = {s.id for s in seen}
    found = _findings(log, first)
    return IllFacts(
        seen=tuple(seen),
        found=tuple(found),
        leaves=tuple(_leaves(log)),
        exposures=tuple(exposures_of(log)),
        now=_now(log, looks, moist, found),
        not_looked_for=tuple(s.words for s in signs().values() if s.id not in told),
    )


def _moist(log: IllLog) -> bool | None:
    """Whether the medium is moist: felt within ten days and since the last watering; else not known."""
    last = log.pours[-1].on if log.pours else None
    for f in reversed(log.felt):
        if (log.today - f.on).days > FELT_DAYS:
            return None
        if last is not None and f.on < last:
            return None
        if f.moist is not None:
            return f.moist != "dry"
        if f.heavy is not None:
            return f.heavy
    return None


def _of_organs(log: IllLog, looks: list[IllLook], first: dict[str, date]) -> None:
    roots = next((x for x in reversed(looks) if x.root_share is not None), None)
    if roots is not None and roots.root_share is not None and roots.root_share < FEW_TIPS:
        first.setdefault("root_tips_dead", roots.on)
    dew = next((x for x in reversed(looks) if x.dewed is not None), None)
    if dew is not None and dew.dewed is False:
        first.setdefault("no_dew_or_no_pitchers", dew.on)
    if any(x.sour for x in looks[-2:]):
        first.setdefault("root_tips_dead", looks[-1].on)


def _of_sizes(log: IllLog, first: dict[str, date]) -> None:
    """The newest leaves in a row shorter than usual; by long or short gaps between them."""
    sized = [x for x in log.leaves if x.share is not None]
    run = sized[-SMALL_RUN:]
    if len(run) == SMALL_RUN and all(x.share is not None and x.share <= SMALL_SHARE for x in run):
        sign = "small_new_long_internode" if log.gaps_long else "small_new_short_internode"
        first.setdefault(sign, run[0].opened_on)


def _absent(log: IllLog, looks: list[IllLook], first: dict[str, date], moist: bool | None) -> list[str]:
    """What was looked for and not found: every kind of mark at a look that noted them; organs that were looked at."""
    last = next((x for x in reversed(looks) if x.looked_for), None)
    out: list[str] = []
    if last is not None and (log.today - last.on).days <= ABSENT_DAYS:
        out += [s for s in _LOOKED_FOR if s not in first]
        if not any(m.kind == "limp" for m in last.marks) or moist is not None:
            out += [s for s in ("wilt_wet_medium", "wilt_dry_medium") if s not in first]
    crisp_told = any(m.texture for x in looks for m in x.marks if m.kind == "tip")
    if "tip_crisp_dry" not in first and "tip_brown_only" in first and not crisp_told:
        out = [s for s in out if s not in ("tip_crisp_dry", "tip_soft_dark")]  # nobody felt it
    if any(x.root_share is not None for x in looks) and "root_tips_dead" not in first:
        out.append("root_tips_dead")
    if any(x.dewed for x in looks) and "no_dew_or_no_pitchers" not in first:
        out.append("no_dew_or_no_pitchers")
    sized = [x for x in log.leaves if x.share is not None]
    if len(sized) >= SMALL_RUN:
        out += [s for s in ("small_new_short_internode", "small_new_long_internode") if s not in first]
    return list(dict.fromkeys(out))


def _leaves(log: IllLog) -> list[FormedLeaf]:
    """Leaves by the days they formed in: marked when a mark was first seen on them, clean when last looked at."""
    marked: dict[int, date] = {}
    for look in log.looks:
        for m in look.marks:
            if m.leaf is not None and m.kind in LEAF_MARKS and not m.old and not m.cause:
                marked.setdefault(m.leaf, m.on)
    last = next((x.on for x in reversed(log.looks) if x.looked_for), None)
    out = []
    for x in log.leaves:
        if (log.today - x.opened_on).days > LEAVES_DAYS:
            continue
        on = marked.get(x.number)
        if on is not None:
            out.append(FormedLeaf(min(x.begun_on, on), on, True, x.number, x.opened_on))
        elif last is not None and last > x.opened_on:
            out.append(FormedLeaf(x.begun_on, last, False, x.number, x.opened_on))
    return out


def _findings(log: IllLog, first: dict[str, date]) -> list[Finding]:
    out: list[Finding] = []
    for part in (_of_runoff, _of_water, _of_air, _of_moisture, _of_moves, _of_life):
        out += part(log)
    if "yellow_oldest_leaf" in first and "yellow_several_leaves" not in first:
        sized = [x.share for x in log.leaves if x.share is not None][-1:]
        if sized and sized[0] > SMALL_SHARE:
            out.append(Finding("only_oldest", log.today))
    by_hand = [Finding(c.finding, c.on, of_check=c.check) for c in log.checks if c.finding and _after_repot(log, c.on)]
    said = {f.id for f in by_hand}
    return [*by_hand, *(f for f in out if f.id not in said)]


def _after_repot(log: IllLog, on: date) -> bool:
    return log.repotted_on is None or on > log.repotted_on


def runoff_word(log: IllLog) -> Literal["", "over", "inside", "low"]:
    """How the last runoff of this mix stands; empty: none was read lately."""
    lately = [r for r in log.runoffs if (log.today - r[0]).days <= RUNOFF_DAYS and _after_repot(log, r[0])]
    if not lately:
        return ""
    ec, rz = lately[-1][1], log.profile.root_zone
    if ec > rz.ec_ceiling_uS_cm:
        return "over"
    return "low" if ec < rz.ec_low_warn_uS_cm else "inside"


def _of_runoff(log: IllLog) -> list[Finding]:
    word = runoff_word(log)
    if not word or (word == "low" and log.phase not in ("active", "flowering")):
        return []
    on, ec = log.runoffs[-1]
    rz = log.profile.root_zone
    limits = f"range {rz.ec_ideal_uS_cm[0]:g} to {rz.ec_ideal_uS_cm[1]:g} µS/cm, ceiling {rz.ec_ceiling_uS_cm:g} µS/cm"
    usual = [v for _, v in log.runoffs[:-1]]
    own = f", its own usual {median(usual):.0f} µS/cm" if usual else ""
    return [Finding(f"runoff_{word}", on, f"runoff {ec:.0f} µS/cm; {limits}{own}", of_check="runoff")]


def _of_water(log: IllLog) -> list[Finding]:
    lately = {p.water for p in log.pours if (log.today - p.on).days <= WATER_DAYS and p.water}
    facts = [w for w in log.waters if w.name in lately]
    if not facts or len(facts) < len(lately):
        facts = [w for w in facts if w.softened or w.alkaline or w.treated]  # one unknown water: nothing is thin
        thin = False
    else:
        thin = all(w.thin for w in facts)
    s = log.profile.sensitivity
    out = []
    for finding, names in (
        ("water_thin", [w.name for w in facts] if thin else []),
        ("water_softened", [w.name for w in facts if w.softened]),
        ("water_alkaline", [w.name for w in facts if w.alkaline]),
        ("water_treated", [w.name for w in facts if w.treated] if max(s.fluoride, s.chlorine) >= 3 else []),
    ):
        if names:
            on = max(p.on for p in log.pours if p.water in names)
            out.append(Finding(finding, on, f"{finding_words(finding)}: {', '.join(names)}", of_check="source"))
    return out


def finding_words(finding: str) -> str:
    """A finding in its own words."""
    return findings()[finding].words


def _of_air(log: IllLog) -> list[Finding]:
    out = []
    lately = [a for a in log.air if (log.today - a.on).days <= AIR_DAYS]
    asked = log.profile.climate.humidity_pct
    damp = [(a.on, a.humidity_pct) for a in lately if a.humidity_pct is not None]
    if asked is not None and damp:
        middle = median(v for _, v in damp)
        words = f"humidity {middle:.0f} %, it asks {asked[0]:g} to {asked[1]:g} %"
        if middle < asked[0] - DRY_POINTS:
            out.append(Finding("air_dry", damp[-1][0], words, damp[0][0], "rh_t"))
        elif asked[0] <= middle:
            out.append(Finding("air_inside", damp[-1][0], words, of_check="rh_t"))
    nights = [(a.on, a.night_C) for a in lately if a.night_C is not None]
    least = log.profile.climate.minimum_C
    cold = [(on, v) for on, v in nights if v < least]
    if cold:
        words = f"night of {min(v for _, v in cold):g} °C, its least is {least:g} °C"
        out.append(Finding("night_cold", cold[-1][0], words, cold[0][0], "rh_t"))
    elif len(nights) >= 2 and (log.today - nights[0][0]).days >= ENOUGH_NIGHTS:
        out.append(Finding("night_inside", nights[-1][0], f"{len(nights)} nights at {least:g} °C or more"))
    return out


def _of_moisture(log: IllLog) -> list[Finding]:
    last = log.pours[-1].on if log.pours else None
    for f in reversed(log.felt):
        if (log.today - f.on).days > FELT_DAYS or (last is not None and f.on < last):
            break
        gap = (f.on - last).days if last is not None else None
        wet = f.moist == "wet" or f.heavy is True
        if wet and gap is not None and gap >= WET_AFTER_DAYS:
            return [Finding("stays_wet", f.on, f"still wet {gap} days after watering", last, "lift")]
        if f.moist == "dry":
            return [Finding("medium_dry", f.on, "dry at depth", of_check="lift")]
        if f.moist in ("moist", "damp"):
            return [Finding("medium_moist", f.on, "moist at depth", of_check="lift")]
    return []


def _of_moves(log: IllLog) -> list[Finding]:
    moved = sorted([*log.moved, *([(log.arrived_on, "arrived")] if log.arrived_on else [])])
    lately = [(on, words) for on, words in moved if 0 <= (log.today - on).days <= MOVED_DAYS]
    if lately:
        return [Finding("moved_lately", lately[-1][0], lately[-1][1], lately[-1][0])]
    first = log.pours[0].on if log.pours else None
    known = first is not None and (log.today - first).days >= SETTLED_DAYS
    if known and not any((log.today - on).days <= SETTLED_DAYS for on, _ in moved):
        return [Finding("not_moved", log.today, "not moved or repotted for 120 days")]
    return []


def _of_life(log: IllLog) -> list[Finding]:
    out = []
    counted = [x for x in log.looks if x.pests is not None and (log.today - x.on).days <= LOOKS_DAYS]
    if counted and counted[-1].pests:
        out.append(Finding("pests_seen", counted[-1].on, f"{counted[-1].pests} on the card", of_check="lens"))
    elif len(counted) >= 2 and not counted[-2].pests:
        out.append(Finding("pests_none", counted[-1].on, of_check="lens"))
    roots = next((x for x in reversed(log.looks) if x.roots_work is not None or x.root_share is not None), None)
    if roots is not None and (log.today - roots.on).days <= LOOKS_DAYS:
        if roots.roots_work or (roots.root_share is not None and roots.root_share >= 2 * FEW_TIPS):
            out.append(Finding("roots_firm", roots.on, "root tips alive"))
    return out


def _now(log: IllLog, looks: list[IllLook], moist: bool | None, found: list[Finding]) -> PlantNow:
    last = next((x for x in reversed(looks) if x.looked_for), None)
    kinds = {m.kind for m in last.marks} if last is not None else set()
    yellow = sorted({m.on for x in looks for m in x.marks if m.kind == "yellow oldest" and not m.old})
    crust = None if last is None else "crust" in kinds
    hand = next((f.id for f in found if f.id.startswith("runoff_")), "")
    word = {"runoff_over": "over", "runoff_inside": "inside", "runoff_low": "low"}.get(hand, "")
    hazard = log.profile.hazard
    poison = f"Poisonous to pets ({hazard.pets}). People: {hazard.people}." if hazard.poisonous else ""
    moist_now = moist
    if moist_now is None:
        ids = {f.id for f in found}
        moist_now = False if "medium_dry" in ids else True if ids & {"medium_moist", "stays_wet"} else None
    return PlantNow(
        today=log.today,
        resting=log.phase in RESTING,
        arrived_on=log.arrived_on,
        group=log.profile.group,
        kind=log.profile.id,
        limp="limp" in kinds,
        moist=moist_now,
        runoff=word,  # type: ignore[arg-type]
        crust=crust,
        yellow_on=tuple(yellow),
        soft_roots=bool(looks and looks[-1].sour) or "roots_dead" in {f.id for f in found},
        yellow_green="yellow-green" in kinds,
        leaf_is_normal=normal_again([x.share for x in log.leaves if x.share is not None]) and not kinds,
        pests_spread=any(f.id == "pests_seen" for f in found),
        poisonous=poison,
    )


def normal_again(shares: list[float]) -> bool:
    """Whether the newest leaf is of usual size after several that were small."""
    *before, last = shares or [0.0]
    return last > SMALL_SHARE and len(before) >= SMALL_RUN and all(x <= SMALL_SHARE for x in before[-SMALL_RUN:])
