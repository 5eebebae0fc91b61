"""What the salt balance needs of a pot beside its log: medium, habit, prills, and what of a pour's salt is ballast."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any, Protocol

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.core.care.usual import start_of_medium_uS_cm
from fenwa.core.library.loader import get_medium, habits
from fenwa.core.library.profile import Profile
from fenwa.core.mix.ballast import can_ballast_share
from fenwa.core.mix.label import label_from
from fenwa.core.pot.mixture import Part, mixed
from fenwa.core.pot.release import PrillSalt
from fenwa.core.pot.salts import water_ballast_share
from fenwa.core.pot.specification import Medium, PotSpec, loss_in_place
from fenwa.core.water.ions import WaterIons
from fenwa.core.water.kinds import SHAPES
from fenwa.store.memory import remembered
from fenwa.store.models import Batch, Pot, RecipeVersion, Water
from fenwa.store.questions import among, columns, listed

_WATERS = select(Water.id, Water.kind, Water.ions)
_CANS = (
    select(Batch, RecipeVersion.label)
    .outerjoin(RecipeVersion, RecipeVersion.id == Batch.recipe_version_id)
    .where(Batch.id.in_(among()))
)


class Poured(Protocol):
    """A pour, as far as it says what it was."""

    @property
    def batch_id(self) -> int | None: ...
    @property
    def water_id(self) -> int | None: ...


def pot_spec(pot: Pot, profile: Profile, phase: str = "active", prills: tuple[PrillSalt, ...] = ()) -> PotSpec:
    """The pot as the salt balance needs it: medium row, habit of the group, prills in it."""
    habit = habits()["rest_or_dim" if phase in ("rest", "dormant") else profile.habit]
    return PotSpec(
        pot.volume_L,
        medium_of(pot),
        habit.u,
        loss_in_place(habit.loss_per_day, pot.drainage),  # type: ignore[arg-type]  # checked when the pot is stored
        pot.drainage,  # type: ignore[arg-type]
        pot.tray_L,
        start_of_medium_uS_cm(pot.medium_charged),
        habit.u_ballast,
        prills,
    )


def medium_of(pot: Pot) -> Medium:
    """The pot's medium: one of the table, or a mixture of its parts."""
    if pot.medium_parts:
        return mixed([Part(get_medium(row["medium_id"]).medium(), row["parts"]) for row in pot.medium_parts])
    return get_medium(pot.medium_id).medium()


def _of_waters(session: Session) -> dict[int, float | None]:
    return {
        water_id: water_ballast_share(WaterIons(**ions) if ions else SHAPES[kind])
        for water_id, kind, ions in columns(session, _WATERS)
    }


class BallastShares:
    """What of a pour's salt is ballast, by the ions of its water and its feed; None where nobody can know."""

    def __init__(self, session: Session, pours: Iterable[Poured]) -> None:
        """Read the waters and cans of these pours."""
        self._waters: Mapping[int, float | None] = remembered(
            session, "ballast of waters", None, _of_waters, also_writing=True
        )
        cans = {p.batch_id for p in pours if p.batch_id is not None}
        found = session.execute(_CANS, {"ids": listed(cans)}) if cans else ()
        self._cans = {b.id: self._can(b, label) for b, label in found}

    def of(self, p: Poured) -> float | None:
        """The share of one pour."""
        if p.batch_id is not None:
            return self._cans.get(p.batch_id)
        return self._waters.get(p.water_id or 0)

    def _can(self, b: Batch, label: dict[str, Any] | None) -> float | None:
        parts = [(label_from(row["label"]), row["dose_g_L"]) for row in b.also]
        if label is not None and b.dose_g_L > 0:
            parts.append((label_from(label), b.dose_g_L))
        return can_ballast_share(self._waters.get(b.water_id or 0), b.water_ec_uS_cm, parts, b.predicted_uS_cm)
