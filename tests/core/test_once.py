"""What is worked out once and kept with its object."""

import threading
from dataclasses import dataclass, field, replace

import pytest

from fenwa.core.care.round_parts import CanPot
from fenwa.core.once import changed, once, once_for


@dataclass(frozen=True)
class Plant:
    leaves: int
    asked: list[str] = field(default_factory=list, compare=False, repr=False)

    @once
    def doubled(self) -> int:
        """Twice its leaves."""
        self.asked.append("doubled")
        return 2 * self.leaves

    @once
    def fourfold(self) -> int:
        """By way of another that is kept."""
        self.asked.append("fourfold")
        return 2 * self.doubled


def test_it_is_worked_out_when_first_asked_for_and_never_again() -> None:
    plant = Plant(3)
    assert plant.asked == []
    assert [plant.fourfold, plant.doubled, plant.fourfold] == [12, 6, 12]
    assert plant.asked == ["fourfold", "doubled"]


def test_each_object_keeps_its_own_and_a_changed_copy_begins_anew() -> None:
    plant = Plant(3)
    assert plant.doubled == 6
    other = replace(plant, leaves=5, asked=[])
    assert other.doubled == 10
    assert plant.doubled == 6


def test_what_is_kept_is_no_field() -> None:
    asked, fresh = Plant(3), Plant(3)
    assert asked.doubled == 6
    assert asked == fresh
    assert "doubled" not in repr(asked)


def test_a_failure_is_not_kept() -> None:
    class Fickle:
        fails = True

        @once
        def value(self) -> int:
            if self.fails:
                raise ValueError("not yet")
            return 7

    fickle = Fickle()
    for _ in range(2):
        with pytest.raises(ValueError, match="not yet"):
            _ = fickle.value
    fickle.fails = False
    assert fickle.value == 7


def test_the_class_itself_gives_the_property_with_its_words() -> None:
    assert Plant.__dict__["doubled"].__doc__ == "Twice its leaves."
    assert Plant.doubled is Plant.__dict__["doubled"]


def test_threads_that_meet_find_the_same_value() -> None:
    plant, found = Plant(21), []
    threads = [threading.Thread(target=lambda: found.append(plant.fourfold)) for _ in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert found == [84] * 8


@once_for
def leaves_after(plant: Plant, days: int, each: int = 7) -> int:
    """Its leaves some days on."""
    plant.asked.append(f"{days} by {each}")
    return plant.leaves + days // each


def test_a_function_is_kept_for_what_was_asked_last() -> None:
    plant = Plant(3)
    assert [leaves_after(plant, 14), leaves_after(plant, 14)] == [5, 5]
    assert plant.asked == ["14 by 7"]
    assert [leaves_after(plant, 28), leaves_after(plant, 28, each=14), leaves_after(plant, 14)] == [7, 5, 5]
    assert plant.asked == ["14 by 7", "28 by 7", "28 by 14", "14 by 7"], "another question is worked out anew"
    assert leaves_after.__doc__ == "Its leaves some days on."


def test_what_a_function_keeps_is_neither_copied_nor_compared() -> None:
    plant = Plant(3)
    leaves_after(plant, 7)
    other = replace(plant, leaves=10, asked=[])
    assert leaves_after(other, 7) == 11
    assert plant == Plant(3)
    assert hash(plant) == hash(Plant(3))
    assert "once" not in repr(plant)


def test_two_functions_of_one_object_do_not_meet() -> None:
    @once_for
    def less(plant: Plant, by: int) -> int:
        return plant.leaves - by

    plant = Plant(3)
    assert [leaves_after(plant, 7), less(plant, 7), leaves_after(plant, 7), less(plant, 7)] == [4, -4, 4, -4]


@once_for
def _words(share: CanPot) -> str:
    return f"row {share.row}"


def test_a_changed_record_is_as_if_it_had_been_made_anew() -> None:
    share = CanPot(1, "A", "Pitcher", "tray", 200.0, "tray", False, "due", "plain water", 10.0)
    other = changed(share, row=3, together=True)
    assert other == replace(share, row=3, together=True)
    assert (share.row, share.together) == (0, False)
    assert hash(other) == hash(replace(share, row=3, together=True))


def test_what_was_kept_with_a_record_does_not_go_with_a_changed_one() -> None:
    share = CanPot(1, "A", "Pitcher", "tray", 200.0, "tray", False, "due", "plain water", 10.0)
    assert _words(share) == "row 0"
    assert _words(changed(share, row=3)) == "row 3"
