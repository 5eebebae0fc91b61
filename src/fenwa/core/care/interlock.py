"""What must not be poured without a word: over a ceiling, on a carnivore, against a hold."""

from __future__ import annotations

from dataclasses import dataclass

from fenwa.core.care.acts import wrong_way
from fenwa.core.care.condition import Blocked, Hold
from fenwa.core.care.holds import blocked


@dataclass(frozen=True)
class PourPlan:
    """A pour about to be stored. EC in µS/cm; None: not known."""

    code: str
    job: str
    ec_uS_cm: float | None
    at_root: bool
    root_pour_ec_max_uS_cm: float | None
    feed_ceiling_uS_cm: float | None
    holds: tuple[Hold, ...]
    route: str = "top"
    crown: str = ""
    made_for: str = "root"


def pour_objections(p: PourPlan) -> tuple[str, ...]:
    """Why this pour needs a word from the grower first. Source: safety interlocks, judgement."""
    wrong = wrong_way(p.route, p.crown, p.made_for)
    out: list[str] = [f"{p.code}: {wrong}."] if wrong else []
    if not p.at_root:
        on_leaves = p.route not in ("cup", "moss pole")
        stops: Blocked = "leaf spray" if on_leaves else "feed" if p.job == "feed" else "water"
        held = (h for h in p.holds if not h.standing and blocked((h,), stops))
        return tuple(out) + tuple(f"{p.code}: {h.reason}" for h in held)
    if p.root_pour_ec_max_uS_cm is not None and p.ec_uS_cm is not None and p.ec_uS_cm > p.root_pour_ec_max_uS_cm:
        out.append(
            f"{p.code} takes at most {p.root_pour_ec_max_uS_cm:.0f} µS/cm on its medium; "
            f"this is {p.ec_uS_cm:.0f} µS/cm."
        )
    elif p.job == "feed" and p.feed_ceiling_uS_cm is not None and p.ec_uS_cm is not None:
        if p.ec_uS_cm > p.feed_ceiling_uS_cm:
            out.append(f"{p.code} takes a feed up to {p.feed_ceiling_uS_cm:.0f} µS/cm; this is {p.ec_uS_cm:.0f} µS/cm.")
    act = "feed" if p.job == "feed" else "flush" if p.job == "flush" else "water"
    out.extend(f"{p.code}: {h.reason}" for h in p.holds if blocked((h,), act))  # type: ignore[arg-type]
    return tuple(out)


def unanswered(p: PourPlan, note: str) -> tuple[str, ...]:
    """Objections that nobody answered; a note of one word or more answers them all."""
    return () if note.strip() else pour_objections(p)
