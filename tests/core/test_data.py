"""Every row of our data files: sourced, checked, in range; a new file is enough for a new feed or profile."""

import json
from collections.abc import Callable
from pathlib import Path

import pytest

from fenwa.core.errors import InputError, NotFound
from fenwa.core.library.loader import (
    DATA,
    fertilizers,
    get_medium,
    get_profile,
    habits,
    media,
    profiles,
    read_fertilizer,
    read_profile,
    schools,
    sources,
)
from fenwa.core.mix.dose import dose
from fenwa.core.mix.elements import label_to_elements
from fenwa.core.mix.label import K_IN_K2O, P_IN_P2O5
from fenwa.core.water.ions import CHARGE, MOLAR_MASS, SPECIES_CHARGE
from fenwa.core.water.kinds import BaseWater


@pytest.mark.parametrize(
    "row", [*profiles().values(), *media().values(), *habits().values(), *fertilizers().values()], ids=lambda r: r.id
)
def test_row_names_a_source_and_a_reviewer(row: object) -> None:
    assert row.source in sources()  # type: ignore[attr-defined]
    assert row.checked_by  # type: ignore[attr-defined]


@pytest.mark.parametrize("p", profiles().values(), ids=lambda p: p.id)
def test_profile_limits_are_in_order(p) -> None:  # type: ignore[no-untyped-def]
    assert p.source_water.ec_ideal_max_uS_cm <= p.source_water.ec_max_uS_cm <= p.source_water.ec_short_term_max_uS_cm
    low, high = p.root_zone.ec_ideal_uS_cm
    assert p.root_zone.ec_low_warn_uS_cm < low < high < p.root_zone.ec_ceiling_uS_cm
    assert p.habit in habits()
    for phase in p.phases.values():
        assert 0 <= phase.n_ideal_mg_L[0] <= phase.n_ideal_mg_L[1]
        assert phase.feed or phase.n_ideal_mg_L == (0, 0)
    if p.carnivore:
        assert p.feeding.routes[0] != "root"
        assert p.feeding.root_pour_ec_max_uS_cm is not None
    assert p.hazard.pets


@pytest.mark.parametrize("m", media().values(), ids=lambda m: m.id)
def test_media_shares_are_shares(m) -> None:  # type: ignore[no-untyped-def]
    assert 0 < m.theta_cc < 1
    assert 0 <= m.phi < 1
    assert 0 < m.eta <= 1
    assert m.t_half_h > 0


def test_no_file_of_the_library_is_left_unread() -> None:
    for folder, read in (("profiles", profiles), ("fertilizers", fertilizers), ("schools", schools)):
        assert len(read()) == len(list((DATA / folder).glob("*.toml")))


DISA = ("profiles", "disa.toml", profiles)
NITRATE = ("fertilizers", "potassium_nitrate.toml", fertilizers)
PULSE = ("schools", "pulse.toml", schools)


@pytest.mark.parametrize(
    ("shipped", "good", "slip", "says"),
    [
        (DISA, "ec_max_uS_cm = ", 'ec_max_uS_cm = "low" # ', "[source_water]: key “ec_max_uS_cm” is 'low': "),
        (
            DISA,
            "ec_max_uS_cm = ",
            "ec_max_uS_cm = -1 # ",
            "[source_water]: key “ec_max_uS_cm” is -1: input should be gr",
        ),
        (
            DISA,
            "sodium = ",
            "sodium = 9 # ",
            "[sensitivity]: key “sodium” is 9: input should be less than or equal to 3",
        ),
        (DISA, "carnivore = ", 'carnivore = "no" # ', "key “carnivore” is 'no': input should be a valid boolean"),
        (DISA, 'habit = "orchid_moss"', 'habit = "orchid_mos"', "key “habit” is 'orchid_mos': choose one of "),
        (DISA, 'source = "', 'source = "hearsay" # "', "key “source” is 'hearsay': choose one of "),
        (DISA, 'group = "', 'group = "orchids" # "', "key “group” is 'orchids': input should be 'orchid', "),
        (DISA, "[phases.active]", "[phases.actve]", "key “phases” is 'actve': choose one of active, "),
        (DISA, "ec_ideal_uS_cm = [", "ec_ideal_uS_cm = [9000, 1] # [", "is (9000, 1): the lower end comes first"),
        (DISA, "pH = [", "pH = [5.0, 15.0] # [", "key “pH”[1] is 15.0: input should be less than or equal to 14"),
        (DISA, 'from_above = "', 'from_above = "sometimes" # "', "[flush]: key “from_above” is 'sometimes': "),
        (DISA, 'short = "', 'short = "" # "', "key “short” is '': string should have at least 1 character"),
        (NITRATE, 'formula = "KNO3"', 'formula = "KXy3"', "key “formula”: Formula “KXy3” is not understood"),
        (NITRATE, 'source = "', 'source = 7 # "', "key “source” is 7: input should be a valid string"),
        (PULSE, "feeds = ", "feeds = 40 # ", "pulse.toml: key “feeds”: "),
        (PULSE, "route = ", 'route = "air" # ', "key “route” is 'air': input should be 'root', "),
    ],
)
def test_a_slip_in_a_shipped_file_is_named_with_file_key_and_reason(
    tmp_path: Path, shipped: tuple[str, str, Callable[[Path], object]], good: str, slip: str, says: str
) -> None:
    folder, name, read = shipped
    text = (DATA / folder / name).read_text("utf-8")
    assert good in text
    (tmp_path / name).write_text(text.replace(good, slip, 1), "utf-8")
    with pytest.raises(InputError) as refused:
        read(tmp_path)
    assert refused.value.detail.startswith(name)
    assert says in refused.value.detail


@pytest.mark.parametrize("shipped", [DISA, NITRATE, PULSE])
def test_an_id_that_stands_twice_is_named_with_both_files(
    tmp_path: Path, shipped: tuple[str, str, Callable[[Path], object]]
) -> None:
    folder, name, read = shipped
    for copy in (name, "z_again.toml"):
        (tmp_path / copy).write_text((DATA / folder / name).read_text("utf-8"), "utf-8")
    with pytest.raises(InputError, match=f"z_again.toml: key “id” is .*, which stands in {name} too"):
        read(tmp_path)


def test_a_slip_in_a_table_is_named_and_an_id_stands_once(tmp_path: Path) -> None:
    path = tmp_path / "media.toml"
    text = (DATA / "media.toml").read_text("utf-8")
    path.write_text(text.replace("theta_cc = 0.6", "theta_cc = 6.0", 1), "utf-8")
    with pytest.raises(InputError, match=r"media.toml: key “theta_cc” is 6.0: input should be less than 1"):
        media(path)
    again = tmp_path / "habits.toml"
    again.write_text((DATA / "habits.toml").read_text("utf-8").replace('id = "orchid_moss"', 'id = "orchid_bark"'))
    with pytest.raises(InputError, match=r"habits.toml: key “id” is 'orchid_bark', which stands in habits.toml too"):
        habits(again)


def test_oxide_factors_follow_from_molar_masses() -> None:
    oxygen = 15.999
    assert pytest.approx(2 * MOLAR_MASS["P"] / (2 * MOLAR_MASS["P"] + 5 * oxygen), abs=5e-5) == P_IN_P2O5
    assert pytest.approx(2 * MOLAR_MASS["K"] / (2 * MOLAR_MASS["K"] + oxygen), abs=5e-5) == K_IN_K2O
    assert all(SPECIES_CHARGE[name] == z for name, z in CHARGE.items())


@pytest.mark.parametrize(
    "salt", ["potassium_nitrate", "calcium_nitrate_tetrahydrate", "magnesium_sulfate_heptahydrate"]
)
def test_salts_by_formula_balance_their_charge(salt: str) -> None:
    assert abs(label_to_elements(label=fertilizers()[salt].label).result.unlisted_meq_g) < 0.02


def test_a_new_fertilizer_is_one_file(tmp_path: Path) -> None:
    path = tmp_path / "new.toml"
    path.write_text(
        'id = "new"\nname = "New 10-5-10"\nn_total_pct = 10.0\np_pct = 5.0\nk_pct = 10.0\n'
        'source = "label"\nchecked_by = "us"\n'
    )
    found = fertilizers(tmp_path)["new"]
    d = dose(label=found.label, base=BaseWater(30, "rain"), volume_L=1, strength="nitrogen", value=50).result
    assert d.dose_g_L == pytest.approx(0.5)


def test_a_new_profile_is_one_file_and_a_slip_is_named(tmp_path: Path) -> None:
    text = (DATA / "profiles" / "disa.toml").read_text()
    path = tmp_path / "disa_two.toml"
    path.write_text(text.replace('id = "disa"', 'id = "disa_two"'))
    assert profiles(tmp_path)["disa_two"].short == "Disa"
    path.write_text(text.replace("ec_max_uS_cm", "ec_max_mS_cm"))
    with pytest.raises(InputError, match=r"disa_two.toml \[source_water\]: key “ec_max_mS_cm” is not known"):
        read_profile(path)
    path.write_text(text.replace('habit = "orchid_moss"\n', ""))
    with pytest.raises(InputError, match="key “habit” is missing"):
        read_profile(path)
    path.write_text("id = ")
    with pytest.raises(InputError, match="not valid TOML"):
        read_fertilizer(path)


def test_an_unknown_plant_has_the_strictest_figures_of_all_kinds() -> None:
    unknown, others = get_profile("unknown"), [p for p in profiles().values() if p.id != "unknown"]
    for part, low in (
        ("source_water", "ec_ideal_max_uS_cm ec_max_uS_cm ec_short_term_max_uS_cm alkalinity_ceiling_mg_L"),
        ("root_zone", "ec_ceiling_uS_cm"),
    ):
        for name in low.split():
            assert getattr(getattr(unknown, part), name) <= min(getattr(getattr(p, part), name) for p in others), name
    for name in ("fluoride", "chlorine", "sodium", "boron"):
        assert getattr(unknown.sensitivity, name) == 3
    assert unknown.climate.minimum_C >= max(p.climate.minimum_C for p in others)
    assert unknown.climate.day_C[1] <= min(p.climate.day_C[1] for p in others)
    assert not any(f.feed for f in unknown.phases.values())
    assert (unknown.hazard.pets, unknown.hazard.people) == ("unknown", "unknown"), "never read as safe"


def test_what_is_not_there_is_said() -> None:
    with pytest.raises(NotFound, match="no care profile “rose”"):
        get_profile("rose")
    with pytest.raises(NotFound, match="no medium “soil”"):
        get_medium("soil")


def test_schema_files_follow_the_rows_the_loader_builds() -> None:
    """A new key of a data file reaches its schema with `python scripts/schemas.py`."""
    from scripts.schemas import everything

    for name, schema in everything().items():
        assert json.loads((DATA / "schema" / name).read_text("utf-8")) == json.loads(json.dumps(schema)), name


def test_every_school_is_whole_and_reviewed() -> None:
    for school in schools().values():
        assert school.checked_by
        assert school.confidence in ("H", "M", "L")
        assert school.source in sources()
        assert school.definition.endswith(".")
        assert school.n_low_mg_L <= school.n_mg_L <= school.n_high_mg_L
        assert 0 <= school.feeds <= school.cycle


def test_a_new_school_is_one_file_and_a_slip_is_named(tmp_path: Path) -> None:
    text = (DATA / "schools" / "pulse.toml").read_text("utf-8")
    (tmp_path / "own.toml").write_text(text.replace('id = "pulse"', 'id = "own"'))
    assert schools(tmp_path)["own"].feeds == 1
    (tmp_path / "own.toml").write_text(text.replace("n_mg_L", "n_ppm"))
    schools.cache_clear()
    with pytest.raises(InputError, match=r"own\.toml: key “n_ppm” is not known"):
        schools(tmp_path)
