"""Pots as a grower says them: what is understood, and what is assumed and told."""

import pytest

from fenwa.core.care.said import kinds_called, said_pots
from fenwa.core.errors import DomainError
from fenwa.core.library.loader import habits, kind_words, media, profiles


@pytest.mark.parametrize(
    ("line", "count", "kind", "medium", "top_cm"),
    [
        ("6 Phalaenopsis in bark, 12 cm", 6, "phalaenopsis", "bark_mix", 12),
        ("6 masdevallia", 6, "masdevallia", "sphagnum_loose", 12),
        ("phrag", 1, "phragmipedium", "sphagnum_loose", 12),
        ("a Paph in a 5 inch pot", 1, "paphiopedilum", "bark_mix", 12.7),
        ("three flytraps in peat and perlite 9cm", 3, "dionaea", "carn_peat_perlite", 9),
        ("3 vft in a 9 cm pot in peat and sand", 3, "dionaea", "carn_peat_sand", 9),
        ("2 catts in 15-cm pots of bark", 2, "cattleya_alliance", "bark_mix", 15),
        ("6 pots of Cattleya in conifer bark 9-15 mm", 6, "cattleya_alliance", "bark_medium", 12),
        ("4x moth orchid, 10,5 cm", 4, "phalaenopsis", "bark_mix", 10.5),
        ("calathea in leca 14 cm", 1, "goeppertia", "clay_balls", 14),
        ("12 Sarracenia", 12, "sarracenia", "carn_peat_perlite", 12),
        ("1 unknown", 1, "unknown", "sphagnum_loose", 12),
        ("Masdevalia", 1, "masdevallia", "sphagnum_loose", 12),
        ("2 PHALAENOPSIS ORCHIDS", 2, "phalaenopsis", "bark_mix", 12),
    ],
)
def test_a_line_is_understood_as_it_is_meant(line: str, count: int, kind: str, medium: str, top_cm: float) -> None:
    r = said_pots(line=line).result
    assert (r.count, r.kind, r.medium) == (count, kind, medium)
    assert r.top_cm == pytest.approx(top_cm)
    assert r.height_cm == pytest.approx(0.9 * top_cm, abs=0.06)


@pytest.mark.parametrize(("said", "litres"), [("0.5 L", 0.5), ("500 mL", 0.5), ("2 litres", 2.0), ("1,2 L", 1.2)])
def test_litres_are_taken_as_they_are_and_give_the_width_of_a_usual_pot(said: str, litres: float) -> None:
    r = said_pots(line=f"2 sarracenia, {said}").result
    assert r.volume_L == pytest.approx(litres)
    wide = said_pots(line=f"2 sarracenia, {r.top_cm} cm").result
    assert wide.volume_L == pytest.approx(litres, rel=0.02)
    assert "cm wide" not in r.sentence


def test_what_nobody_said_is_assumed_and_told() -> None:
    bare = said_pots(line="masdevallia").result.sentence
    assert "in Long-fibre sphagnum, loose. Assumed: the medium, 12 cm wide." in bare
    assert "Assumed" not in said_pots(line="masdevallia in moss, 8 cm").result.sentence


def test_a_name_of_several_kinds_is_read_as_the_strictest_and_the_others_are_named() -> None:
    r = said_pots(line="2 nepenthes").result
    limits = [profiles()[k].source_water.ec_max_uS_cm for k in (r.kind, *r.others)]
    assert {r.kind, *r.others} == {"nepenthes_highland", "nepenthes_lowland"}
    assert limits == sorted(limits)
    assert "strictest of 2 kinds" in r.sentence


def test_a_carnivore_stands_in_its_tray() -> None:
    assert said_pots(line="dionaea").result.drainage == "tray"
    assert said_pots(line="phal").result.drainage == "drains"


@pytest.mark.parametrize("kind", sorted(profiles()))
def test_every_kind_is_found_by_its_name_and_its_short_name(kind: str) -> None:
    p = profiles()[kind]
    assert kind in kinds_called(p.short)
    assert kind in kinds_called(p.name) or kind == "unknown"
    assert habits()[p.habit].usual_medium in media()


@pytest.mark.parametrize("word", sorted(kind_words()))
def test_every_word_growers_use_means_its_kinds(word: str) -> None:
    assert set(kinds_called(word)) == set(kind_words()[word])
    assert set(kinds_called(f"{word}s")) >= set(kind_words()[word]) or word.endswith("s")


@pytest.mark.parametrize("medium", sorted(media()))
def test_every_medium_is_found_by_its_name(medium: str) -> None:
    assert said_pots(line=f"phal in {media()[medium].name}").result.medium == medium


@pytest.mark.parametrize("line", ["roses", "12", "in bark", "x" * 30, "🌱", "phal in gravy", "'; drop table pot; --"])
def test_what_is_not_understood_is_asked_and_nothing_is_guessed(line: str) -> None:
    with pytest.raises(DomainError):
        said_pots(line=line)
