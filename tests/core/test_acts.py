"""What goes with a pour, what a helper must not do, and a pour that goes the wrong way."""

import pytest

from fenwa.core.care.acts import not_to_do, then_of, wrong_way

ROUTES = ("top", "soak", "tray", "reservoir", "cup", "moss pole", "leaf spray")
CROWNS = ("", "dry", "cup")


@pytest.mark.parametrize(
    ("route", "crown", "soak", "stand", "said"),
    [
        ("top", "", None, None, ""),
        ("top", "dry", None, None, "Dry the crown."),
        ("leaf spray", "dry", None, None, "Dry the crown."),
        ("tray", "dry", None, None, ""),  # nothing reached the crown
        ("top", "cup", None, None, "Keep the cup filled."),
        ("soak", "", 15.0, None, "Plunge 15 min, tip out after 30 min."),
        ("soak", "", None, 45.0, "Stand it in the water, tip out after 45 min."),
        ("soak", "dry", 20.0, 10.0, "Plunge 20 min, tip out after 10 min."),
        ("top", "", None, 20.0, "Let it stand 20 min, tip out."),
        ("cup", "cup", None, 5.0, "Let it stand 5 min, tip out. Keep the cup filled."),
        ("tray", "", None, 20.0, ""),  # a tray stands anyway
        ("top", "dry", None, 20.0, "Let it stand 20 min, tip out. Dry the crown."),
    ],
)
def test_what_is_done_after_a_pour(route: str, crown: str, soak: float | None, stand: float | None, said: str) -> None:
    assert then_of(route, crown, soak, stand) == said


@pytest.mark.parametrize(
    ("route", "crown", "from_above", "said"),
    [
        ("top", "", "always", "No feed."),
        ("top", "dry", "always", "No feed. No water in the crown."),
        ("cup", "cup", "always", "No feed. Never let the cup run dry."),
        ("tray", "", "never", "No feed. Never from above."),
        ("tray", "", "tray_change", "No feed. Never from above."),
        ("reservoir", "", "water_change", "No feed. Never from above."),
        ("tray", "", "monthly", "No feed."),
        ("top", "", "never", "No feed."),  # it is watered from above every day
        ("soak", "dry", "always", "No feed. No water in the crown. Do not leave it standing in water."),
    ],
)
def test_what_a_helper_must_not_do(route: str, crown: str, from_above: str, said: str) -> None:
    assert not_to_do(route, crown, from_above) == said


@pytest.mark.parametrize("route", ROUTES)
@pytest.mark.parametrize("crown", CROWNS)
def test_a_helper_never_feeds(route: str, crown: str) -> None:
    for from_above in ("never", "always", "tray_change", "water_change"):
        assert not_to_do(route, crown, from_above).startswith("No feed.")


@pytest.mark.parametrize("crown", CROWNS)
@pytest.mark.parametrize("route", ROUTES)
@pytest.mark.parametrize("made_for", ["root", "cup", "moss pole", "leaf"])
def test_a_can_goes_where_it_was_mixed_for(route: str, crown: str, made_for: str) -> None:
    wrong = wrong_way(route, crown, made_for)
    if route == "cup" and crown != "cup":
        assert "rots it" in wrong
    elif route in ("top", "soak", "tray", "reservoir") and made_for != "root":
        assert wrong == f"this can was mixed for the {made_for}, not for the root"
    else:
        assert wrong == ""
