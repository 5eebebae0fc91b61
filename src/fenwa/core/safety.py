"""What to mind where a hand could be hurt, or harm: a line for each place of use. Labels and local rules come first."""

from __future__ import annotations

SAFETY: dict[str, str] = {
    "feed": (
        "The product’s label and local rules come first. Keep feed and pesticide away from children, pets and food."
    ),
    "stock": "Label every stock bottle with contents, strength and date. Keep it away from children, pets and food.",
    "pump": (
        "Pumps near water: a drip loop in the cable, residual-current protection, the plug out before a hand goes in."
    ),
    "lamp": "Lamps near water: a drip loop in the cable and residual-current protection.",
    "disposal": (
        "What runs off holds salt and feed: not over another pot, not into a pond or a stream. "
        "Local rules say where it may go."
    ),
    "treatment": "The product’s label and local rules come first: dose, protection, days to wait.",
    "water": "Rain and process water is not drinking water. A water company’s report outranks a pen.",
}
"""Place of use: what to mind there. Acids have lines of their own, to be confirmed (``water.acidify.SAFETY_LINES``)."""
