"""What a look, a flush, a pour or a log cannot hold is refused beside its field, and what lies at the edge is not."""

import copy
from datetime import date
from typing import Any

import pytest

from fenwa.api.calc.calculations import run_calculation
from fenwa.core.errors import DomainError, InputError
from fenwa.core.leaf.asked import check_length, check_look
from fenwa.core.leaf.marks import SeenMark, check_mark
from fenwa.core.leaf.organs import ORGANS, SeenOrgan, check_organ
from tests.core.test_every_range import example_of

TODAY = date(2026, 11, 23)


# a look


@pytest.mark.parametrize(
    ("field", "most"), [("posture", 3), ("hour", 23), ("pests", 10_000), ("gained", 1000), ("lost", 1000)]
)
def test_counts_of_a_look_have_an_end_on_both_sides(field: str, most: int) -> None:
    nothing: dict[str, Any] = {"posture": None, "hour": None, "pests": None, "gained": None, "lost": None, "organs": ()}
    for inside in (0, most):
        check_look(**{**nothing, field: inside})
    for outside in (-1, most + 1):
        with pytest.raises(DomainError) as refused:
            check_look(**{**nothing, field: outside})
        assert refused.value.pointer == f"/{field}"


def test_an_organ_is_told_once_a_look_and_leaves_in_their_own_field() -> None:
    nothing: dict[str, Any] = {"posture": None, "hour": None, "pests": None, "gained": None, "lost": None}
    check_look(**nothing, organs=[SeenOrgan("buds"), SeenOrgan("spikes")])
    with pytest.raises(InputError, match="told twice") as refused:
        check_look(**nothing, organs=[SeenOrgan("buds"), SeenOrgan("spikes"), SeenOrgan("buds")])
    assert refused.value.pointer == "/organs/2/organ"
    with pytest.raises(InputError, match="their own field"):
        check_look(**nothing, organs=[SeenOrgan("leaves")])


@pytest.mark.parametrize(
    ("mm", "usual", "refused"),
    [
        (120, 120, False),
        (1199, 120, False),
        (1200, 120, True),
        (12, 120, True),
        (12.1, 120, False),
        (4000, None, False),
    ],
)
def test_a_length_ten_times_off_is_most_likely_the_other_unit(mm: float, usual: float | None, refused: bool) -> None:
    if not refused:
        check_length(mm, usual, "/newest_leaf")
        return
    with pytest.raises(InputError, match="cm or mm") as error:
        check_length(mm, usual, "/newest_leaf")
    assert error.value.pointer == "/newest_leaf"


FIGURES = [(organ, a.figure, a.most, a.unit) for organ, form in ORGANS.items() for a in form.figures]


@pytest.mark.parametrize(("organ", "figure", "most", "unit"), FIGURES)
def test_each_figure_of_an_organ_has_its_range(organ: Any, figure: str, most: float, unit: str) -> None:
    for inside in (0, most):
        check_organ(SeenOrgan(organ, **{figure: inside}), "/organs/0")
    for outside in (-1, most + 1):
        with pytest.raises(DomainError) as refused:
            check_organ(SeenOrgan(organ, **{figure: outside}), "/organs/0")
        assert refused.value.pointer == f"/organs/0/{figure}"
    if not unit:  # what is counted is counted whole
        with pytest.raises(InputError, match="not a whole number"):
            check_organ(SeenOrgan(organ, **{figure: 1.5}), "/organs/0")
    else:
        check_organ(SeenOrgan(organ, **{figure: 1.5}), "/organs/0")
    for told in ("looked for, none seen", "cannot tell"):
        with pytest.raises(InputError, match="and yet a figure is told"):
            check_organ(SeenOrgan(organ, told, **{figure: 1}), "/organs/0")  # type: ignore[arg-type]


@pytest.mark.parametrize("organ", ORGANS)
def test_an_organ_has_only_its_own_figures_and_words(organ: Any) -> None:
    form = ORGANS[organ]
    for figure in {"count", "of", "mm", "percent", "lost"} - {a.figure for a in form.figures}:
        with pytest.raises(InputError, match="Leave it out"):
            check_organ(SeenOrgan(organ, **{figure: 1}), "/organs/0")  # type: ignore[arg-type]
    for word, known in form.words.items():
        for said in known:
            check_organ(SeenOrgan(organ, words={word: said}), "/organs/0")
        with pytest.raises(InputError, match="is not known") as refused:
            check_organ(SeenOrgan(organ, words={word: "purple"}), "/organs/0")
        assert refused.value.pointer == "/organs/0/words"
    with pytest.raises(InputError, match="is not known"):
        check_organ(SeenOrgan(organ, words={"mood": "good"}), "/organs/0")


@pytest.mark.parametrize("organ", ["root tips", "flowers"])
def test_a_share_is_no_more_than_its_whole(organ: Any) -> None:
    check_organ(SeenOrgan(organ, count=4, of=4), "/organs/0")
    with pytest.raises(InputError, match="Count again"):
        check_organ(SeenOrgan(organ, count=5, of=4), "/organs/0")


@pytest.mark.parametrize(
    ("mark", "field"),
    [
        ({"kind": "tip", "mm": -1}, "mm"),
        ({"kind": "tip", "mm": 5001}, "mm"),
        ({"kind": "tip", "leaf_mm": 0}, "leaf_mm"),
        ({"kind": "tip", "leaf_mm": 10_001}, "leaf_mm"),
        ({"kind": "tip", "mm": 31, "leaf_mm": 30}, "mm"),
        ({"kind": "tip", "leaf": 0}, "leaf"),
        ({"kind": "tip", "leaf": 100_001}, "leaf"),
        ({"kind": "yellow", "texture": "dry"}, "texture"),
        ({"kind": "crust", "leaf": 3}, "place"),
        ({"kind": "algae", "place": "tip"}, "place"),
        ({"kind": "mould", "old": True}, "old"),
        ({"kind": "limp", "old": True}, "old"),
        ({"kind": "rot", "old": True}, "old"),
        ({"kind": "tip", "mm": 0}, ""),
        ({"kind": "tip", "mm": 30, "leaf_mm": 30, "leaf": 1, "texture": "dry", "old": True}, ""),
        ({"kind": "crust"}, ""),
    ],
)
def test_a_mark_is_what_it_can_be(mark: dict[str, Any], field: str) -> None:
    if not field:
        check_mark(SeenMark(on=TODAY, **mark), "/marks/0")
        return
    with pytest.raises(DomainError) as refused:
        check_mark(SeenMark(on=TODAY, **mark), "/marks/0")
    assert refused.value.pointer == f"/marks/0/{field}"


# a flush, a pour, a reading, the log of an ill plant


def put(inputs: dict[str, Any], pointer: str, value: Any) -> dict[str, Any]:
    changed = copy.deepcopy(inputs)
    *way, last = (int(step) if step.isdigit() else step for step in pointer.strip("/").split("/"))
    place: Any = changed
    for step in way:
        place = place[step]
    place[last] = value
    return changed


PASSES = [{"volume_L": 0.5, "runoff_uS_cm": 1500}, {"volume_L": 0.5, "runoff_uS_cm": 1300, "minute": 45}]
LOG: dict[str, Any] = {"id": "leaf_no_such", "seen": True}
NOT_KNOWN = "is not known"
ROWS: list[tuple[str, str, Any, str, str]] = [
    ("flush-session", "/passes", [{"volume_L": 0}], "/passes/0/volume_L", "Poured 0 L"),
    ("flush-session", "/passes", [{"volume_L": 1001}], "/passes/0/volume_L", "Poured 1001 L"),
    ("flush-session", "/passes", [{"volume_L": 1, "soaked_min": -1}], "/passes/0/soaked_min", "Soak -1 min"),
    ("flush-session", "/passes", [{"volume_L": 1, "minute": -1}], "/passes/0/minute", "before the flush itself"),
    (
        "flush-session",
        "/passes",
        [{"volume_L": 1, "minute": 9}, {"volume_L": 1, "minute": 8}],
        "/passes/1/minute",
        "before the one before it",
    ),
    ("flush-session", "/passes", [{"volume_L": 1, "drained_L": 1.01}], "/passes/0/drained_L", "more than the 1 L"),
    ("flush-session", "/passes", [{"volume_L": 1, "runoff_uS_cm": 0}], "/passes/0/runoff_uS_cm", "Runoff 0"),
    (
        "flush-session",
        "/passes",
        [PASSES[0], {**PASSES[1], "runoff_uS_cm": 15_001}],
        "/passes/1/runoff_uS_cm",
        "more than ten times what is expected",
    ),
    ("flush-session", "/passes", [{"volume_L": 1}] * 61, "/passes", "61 passes are too many"),
    ("flush-session", "/stop_runoff_uS_cm", 1, "/stop_runoff_uS_cm", "no higher than the water"),
    ("root-zone", "/events/0/on", "2030-01-01", "/events/0/on", "lies after today"),
    ("root-zone", "/events/0/volume_L", 1001, "/events/0/volume_L", "Volume 1001 L"),
    ("root-zone", "/events/0/ec_uS_cm", -1, "/events/0/ec_uS_cm", "EC of the pour -1"),
    ("root-zone", "/events/0/runoff_ec_uS_cm", 0, "/events/0/runoff_ec_uS_cm", "EC of the runoff 0"),
    ("root-zone", "/events/0/ballast_share", 1.01, "/events/0/ballast_share", "Share of ballast 1.01"),
    ("root-zone", "/events/0/soak_h", 73, "/events/0/soak_h", "Soak before the pour 73 h"),
    ("root-zone", "/events/0/runoff_L", 0.26, "/events/0/runoff_L", "more than the 0.25 L poured"),
    ("root-zone", "/readings", [{"on": "2030-01-01", "ec_uS_cm": 500}], "/readings/0/on", "lies after today"),
    (
        "root-zone",
        "/readings",
        [{"on": "2026-09-01", "ec_uS_cm": 0, "method": "pour-through"}],
        "/readings/0/ec_uS_cm",
        "Reading 0",
    ),
    (
        "root-zone",
        "/readings",
        [{"on": "2026-09-01", "ec_uS_cm": 500, "method": "first drops"}],
        "/readings/0/method",
        "enter it with its pour",
    ),
    ("likely-causes", "/seen", [LOG], "/seen/0/id", NOT_KNOWN),
    ("likely-causes", "/seen", [{"id": "white_crust", "seen": True}] * 2, "/seen/1/id", "told twice"),
    ("likely-causes", "/found", [{"id": "no such", "on": "2026-11-01"}], "/found/0/id", NOT_KNOWN),
    ("likely-causes", "/own", [{"cause": "no such", "closed": 1, "signs": []}], "/own/0/cause", NOT_KNOWN),
    ("likely-causes", "/own", [{"cause": "salt", "closed": -1, "signs": []}], "/own/0/closed", "Closed cases -1"),
    (
        "likely-causes",
        "/own",
        [{"cause": "salt", "closed": 2, "signs": [["white_crust", 3]]}],
        "/own/0/signs/0",
        "Cases with it 3",
    ),
    (
        "likely-causes",
        "/exposures",
        [{"cause": "rh", "known_since": "2026-01-01", "spans": [{"since": "2026-03-02", "until": "2026-03-01"}]}],
        "/exposures/0/spans/0",
        "ends before it begins",
    ),
]


@pytest.mark.parametrize(("name", "field", "value", "pointer", "words"), ROWS)
def test_what_cannot_have_been_is_refused(name: str, field: str, value: Any, pointer: str, words: str) -> None:
    with pytest.raises(DomainError) as refused:
        run_calculation(name, put(example_of(name), field, value))
    assert refused.value.pointer == pointer
    assert words in refused.value.detail


def test_ten_times_is_taken_once_it_was_read_twice() -> None:
    inputs = example_of("flush-session")
    strong = {**PASSES[1], "runoff_uS_cm": 15_001, "read_twice": True}
    assert run_calculation("flush-session", put(inputs, "/passes", [PASSES[0], strong]))["result"]
