"""What goes with a pour: dry the crown here, fill the cup there, plunge and tip out; and what a helper must not do."""

from __future__ import annotations

USUAL_STAND_min = 30.0  # a plunged pot drains about so long; judgement


def then_of(route: str, crown: str, soak_min: float | None, stand_min: float | None) -> str:
    """What is done with or after a pour, in a sentence; empty where nothing is."""
    said = []
    if route == "soak":
        plunge = f"Plunge {soak_min:g} min" if soak_min else "Stand it in the water"
        said.append(f"{plunge}, tip out after {stand_min or USUAL_STAND_min:g} min.")
    elif stand_min and route in ("top", "cup"):
        said.append(f"Let it stand {stand_min:g} min, tip out.")
    if crown == "cup":
        said.append("Keep the cup filled.")
    elif crown == "dry" and route in ("top", "leaf spray"):
        said.append("Dry the crown.")
    return " ".join(said)


def not_to_do(route: str, crown: str, from_above: str) -> str:
    """What somebody who does not know the plant must not do."""
    said = ["No feed."]
    if crown == "dry":
        said.append("No water in the crown.")
    elif crown == "cup":
        said.append("Never let the cup run dry.")
    if route in ("tray", "reservoir") and from_above in ("never", "tray_change", "water_change"):
        said.append("Never from above.")
    elif route == "soak":
        said.append("Do not leave it standing in water.")
    return " ".join(said)


def wrong_way(route: str, crown: str, made_for: str) -> str:
    """Why a pour goes the wrong way for this plant or this can; empty where it does not.

    ``made_for``: the way the can was mixed for.
    """
    at_root = route in ("top", "soak", "tray", "reservoir")
    if route == "cup" and crown != "cup":
        return "it has no cup: water that stands in its crown rots it"
    if at_root and made_for in ("cup", "moss pole", "leaf"):
        return f"this can was mixed for the {made_for}, not for the root"
    return ""
