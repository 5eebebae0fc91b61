"""What pots of one mix share: what the readings of each say of the others."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from pydantic_core import from_json
from sqlalchemy import Executable, Text, select, type_coerce
from sqlalchemy.orm import Session

from fenwa.core.pot.learning import Knowledge, Mix, Pooled
from fenwa.core.pot.specification import LEARNT, SPREAD
from fenwa.store.core_version import CORE_VERSION
from fenwa.store.memory import Readable, rests_on
from fenwa.store.models import Pot, PotSummary
from fenwa.store.questions import among, columns, listed

_RESTS_ON = frozenset((Pot.__tablename__, PotSummary.__tablename__))
ByMix = dict[str, dict[int, str]]  # what each pot of a mix learnt, as it is stored


def mix_of(pot: Pot, profile_id: str) -> str:
    """Pots of one medium and kind share what their readings taught: the key they share it by."""
    parts = sorted(f"{row['medium_id']}:{row['parts']:g}" for row in pot.medium_parts or [])
    return f"{'+'.join(parts) or pot.medium_id}|{profile_id}"


def pots_of_mix(session: Session, mix: str) -> list[int]:
    """Pots folded last under this mix."""
    return list(session.scalars(select(PotSummary.pot_id).where(PotSummary.mix == mix)))


@lru_cache(maxsize=16_384)
def _knowledge_of(learnt: str) -> dict[str, Knowledge]:
    """What a pot's readings taught, as it is stored: read once, and what it tells its mix is worked out once."""
    return {n: Knowledge(n, v[0], v[1], SPREAD[n]) for n, v in from_json(learnt).items()}


@dataclass(frozen=True)
class _Shared:
    """What pots learnt, after some count of writes, and each mix summed up once somebody asked."""

    at: int
    learnt: ByMix
    summed: dict[str, Mix] = field(default_factory=dict)

    def told(self, pot_id: int, mix: str) -> tuple[Pooled, ...]:
        """What the others of its mix say of a pot."""
        pots = self.learnt.get(mix)
        if not pots:
            return ()
        if (known := self.summed.get(mix)) is None:
            # by their numbers: a sum must not differ by the order in which they were read
            known = self.summed[mix] = Mix((_knowledge_of(pots[i]) for i in sorted(pots)), LEARNT)
        return known.told(_knowledge_of(pots[pot_id]) if pot_id in pots else None)

    def after(self, at: int, pot_ids: set[int], now: ByMix) -> _Shared:
        """The same once some pots were read anew: only mixes in which something differs are summed up anew."""
        learnt, summed = dict(self.learnt), dict(self.summed)
        for mix in self.learnt.keys() | now.keys():
            before, new = self.learnt.get(mix, {}), now.get(mix, {})
            if any(before.get(i) != new.get(i) for i in pot_ids):
                learnt[mix] = {i: x for i, x in before.items() if i not in pot_ids} | new
                summed.pop(mix, None)
        return _Shared(at, learnt, summed)


_LEARNT = (
    select(PotSummary.pot_id, PotSummary.mix, type_coerce(PotSummary.learnt, Text).label("learnt"))
    .join(Pot, Pot.id == PotSummary.pot_id)
    .where(Pot.archived_at.is_(None), PotSummary.learnt.is_not(None), PotSummary.core_version == CORE_VERSION)
)
_OF_MIXES = _LEARNT.where(PotSummary.mix.in_(among("mixes")))
_OF_POTS = _LEARNT.where(PotSummary.pot_id.in_(among()))


def _read(session: Session, question: Executable, **asked: Any) -> ByMix:
    """What pots kept learnt, by their mix."""
    out: ByMix = {}
    for pot_id, mix, learnt in columns(session, question, **asked):
        if learnt != "{}":
            out.setdefault(mix, {})[pot_id] = learnt
    return out


def _kept(session: Session, store: Readable) -> _Shared:
    """What pots learnt as this session sees it, or later; read anew only of pots written since."""
    rests_on(_RESTS_ON)
    at: int = session.info["writes"]
    known: _Shared | None = store.changed.memory.get("mixes")
    written = store.changed.pots_since(known.at) if known is not None else None
    if known is None or written is None:
        known = _Shared(at, _read(session, _LEARNT))
    elif not written or at < known.at:
        return known
    else:
        known = known.after(at, written, _read(session, _OF_POTS, ids=listed(written)))
    store.changed.memory["mixes"] = known
    return known


def told_by_others(session: Session, mixes: Mapping[int, str]) -> dict[int, tuple[Pooled, ...]]:
    """What the readings of other pots of its mix say of each pot; only pots they say anything of are named."""
    store: Readable | None = session.info.get("store")
    if store is not None:
        shared = _kept(session, store)
    else:
        shared = _Shared(0, _read(session, _OF_MIXES, mixes=listed(set(mixes.values()))))
    told = {pot_id: shared.told(pot_id, mix) for pot_id, mix in mixes.items()}
    return {pot_id: parts for pot_id, parts in told.items() if parts}
