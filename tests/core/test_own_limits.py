"""The limits of a kind as its grower sets them, read back as they were set."""

from __future__ import annotations

from dataclasses import asdict, fields, replace

import pytest

from fenwa.core.care.kind_in_force import OWN_RANGES, OwnLimits, limits_of, own_limits, own_version
from fenwa.core.library.loader import profiles
from fenwa.core.library.profile import Profile

KINDS = pytest.mark.parametrize("kind", profiles().values(), ids=lambda p: p.id)
RESTS = ("gate_root_cm", "gate_roots", "gate_growth_cm")


@KINDS
def test_every_limit_has_a_range_and_every_kind_lies_within_it(kind: Profile) -> None:
    assert set(OWN_RANGES) == {f.name for f in fields(OwnLimits)}
    for name, value in asdict(limits_of(kind)).items():
        _, _, low, high = OWN_RANGES[name]
        assert value is None or low <= value <= high, name


@KINDS
def test_what_is_set_is_what_is_in_force(kind: Profile) -> None:
    """Each limit set to a value of its own, alone: that one moves, and no other of them."""
    shipped = limits_of(kind)
    moved = {
        "water_max": (shipped.water_max or 0) + 7,
        "alkalinity_max": (shipped.alkalinity_max or 0) + 3,
        "reading_high": (shipped.reading_high or 0) - 1,
        "reading_ceiling": (shipped.reading_ceiling or 0) + 11,
        "minimum_C": (shipped.minimum_C or 0) - 2,
        "flush_each_days": 77.0,
    }
    for name, value in moved.items():
        own = own_version(kind, own_limits(kind, OwnLimits(**{name: value})))
        assert limits_of(own) == replace(shipped, **{name: value}), name


@KINDS
def test_a_carnivore_has_no_feed_to_set(kind: Profile) -> None:
    limits = limits_of(kind)
    if kind.carnivore:
        assert (limits.nitrogen_low, limits.nitrogen_high, limits.feed_ceiling) == (None, None, None)
    elif "active" in kind.phases:
        assert (limits.nitrogen_low, limits.nitrogen_high) == kind.phases["active"].n_ideal_mg_L


def test_a_kind_without_a_cadence_is_flushed_by_salt_alone() -> None:
    without = [k for k in profiles().values() if k.flush.cadence_days is None]
    assert without
    assert all(limits_of(k).flush_each_days is None for k in without)
    with_one = next(k for k in profiles().values() if k.flush.cadence_days)
    assert limits_of(with_one).flush_each_days == (with_one.flush.cadence_days or (0, 0))[1]
