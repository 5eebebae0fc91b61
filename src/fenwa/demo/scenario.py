"""The Ansa Orangery: an invented signal station's winter garden on an invented island.

Who stands there and what happened to them. Every figure is made up for the demonstration.
"""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class DemoPot:
    """A pot of the orangery. ``offset``: days since the last pour; at the interval it is due today."""

    code: str
    name: str
    profile: str
    medium: str
    volume_L: float
    interval: int
    offset: int
    place: str
    spot: str
    nitrogen: float = 0.0
    plain_every: int = 4
    drainage: str = "drains"
    route: str = "top"
    phase: str = "active"
    story: str = ""
    isolated: bool = False
    leaf_mm: float = 120.0
    leaf_days: int = 45
    pour_share: float = 1.45  # poured over what was lost: the rest runs out


GARDEN, ROOM = "Winter garden", "Signal room"

POTS = (
    DemoPot("M-04", "", "masdevallia", "sphagnum_loose", 0.45, 4, 4, ROOM, "shelf 1 left", 20, leaf_mm=95),
    DemoPot("M-07", "", "masdevallia", "sphagnum_loose", 0.45, 4, 4, ROOM, "shelf 1 left", 20, leaf_mm=88),
    DemoPot("DI-01", "Disa by the window", "disa", "sphagnum_live", 0.60, 3, 2, ROOM, "shelf 1 right", 5, leaf_mm=140),
    DemoPot("P-01", "", "paphiopedilum", "bark_mix", 0.90, 6, 5, ROOM, "shelf 2 left", 50, leaf_mm=180, leaf_days=70),
    DemoPot("P-02", "", "paphiopedilum", "bark_mix", 0.90, 6, 6, ROOM, "shelf 2 left", 50, leaf_mm=165, leaf_days=70),
    DemoPot(
        "P-06",
        "Phragmipedium, the big clump",
        "phragmipedium",
        "bark_mix",
        1.40,
        4,
        4,
        ROOM,
        "shelf 2 right",
        24,
        story="salted",
        leaf_mm=230,
        leaf_days=50,
    ),
    DemoPot(
        "P-07",
        "Phragmipedium, sister of P-06",
        "phragmipedium",
        "bark_mix",
        1.20,
        4,
        2,
        ROOM,
        "shelf 2 right",
        28,
        leaf_mm=215,
        leaf_days=50,
    ),
    DemoPot("N-03", "", "nepenthes_highland", "sphagnum_loose", 1.20, 3, 1, ROOM, "shelf 3", 0, 0, leaf_mm=170),
    DemoPot("N-04", "", "nepenthes_highland", "sphagnum_loose", 1.00, 3, 3, ROOM, "shelf 3", 0, 0, leaf_mm=150),
    DemoPot("H-02", "", "heliamphora", "sphagnum_live", 0.80, 3, 3, ROOM, "shelf 3", 0, 0, leaf_mm=110),
    DemoPot(
        "G-01", "", "pinguicula_mexican", "mineral_gritty", 0.35, 5, 3, ROOM, "sill", 0, 0, "tray", "tray", leaf_mm=32
    ),
    DemoPot(
        "G-02", "", "pinguicula_mexican", "mineral_gritty", 0.35, 5, 5, ROOM, "sill", 0, 0, "tray", "tray", leaf_mm=28
    ),
    DemoPot("C-03", "", "ctenanthe", "peat_perlite", 2.50, 6, 6, GARDEN, "bench north", 80, leaf_mm=210, leaf_days=30),
    DemoPot(
        "C-08",
        "Ctenanthe, the fresh one",
        "ctenanthe",
        "peat_perlite",
        1.80,
        6,
        3,
        GARDEN,
        "bench north",
        80,
        story="arrival",
        leaf_mm=190,
    ),
    DemoPot(
        "A-05",
        "",
        "anthurium_foliage",
        "aroid_chunky",
        2.20,
        5,
        4,
        GARDEN,
        "bench north",
        110,
        0,
        story="thirsty",
        leaf_mm=260,
        leaf_days=55,
        pour_share=1.12,
    ),
    DemoPot(
        "A-06",
        "",
        "anthurium_foliage",
        "aroid_chunky",
        2.00,
        5,
        5,
        GARDEN,
        "bench north",
        80,
        leaf_mm=250,
        leaf_days=55,
    ),
    DemoPot(
        "B-11", "", "begonia_rex", "peat_perlite", 1.00, 5, 5, GARDEN, "bench south", 50, leaf_mm=130, leaf_days=28
    ),
    DemoPot("F-01", "", "adiantum", "coir_perlite", 1.20, 3, 2, GARDEN, "bench south", 40, leaf_mm=240, leaf_days=20),
    DemoPot("F-02", "", "adiantum", "coir_perlite", 1.00, 3, 3, GARDEN, "bench south", 40, leaf_mm=220, leaf_days=20),
    DemoPot(
        "D-08",
        "",
        "dendrobium_deciduous",
        "bark_medium",
        0.80,
        6,
        1,
        GARDEN,
        "hanging",
        70,
        phase="slowing",
        leaf_mm=100,
        leaf_days=35,
    ),
    DemoPot(
        "D-09",
        "",
        "dendrobium_deciduous",
        "bark_medium",
        0.80,
        6,
        25,
        GARDEN,
        "hanging",
        70,
        story="resting",
        leaf_mm=105,
        leaf_days=35,
    ),
    DemoPot(
        "S-01",
        "",
        "sarracenia",
        "carn_peat_perlite",
        2.00,
        3,
        3,
        GARDEN,
        "sunny end",
        0,
        0,
        "tray",
        "tray",
        story="rinsed",
        leaf_mm=420,
        leaf_days=30,
    ),
    DemoPot(
        "S-02",
        "",
        "sarracenia",
        "carn_peat_perlite",
        1.60,
        3,
        1,
        GARDEN,
        "sunny end",
        0,
        0,
        "tray",
        "tray",
        story="rinsed",
        leaf_mm=380,
        leaf_days=30,
    ),
    DemoPot(
        "X-01", "Unnamed gift", "unknown", "bark_fine", 0.60, 5, 4, ROOM, "by the door", 0, 0, isolated=True, leaf_mm=70
    ),
)

# lines of two invented reports: quantity, as typed, unit
REPORTS = (
    (
        "Borehole",
        96,
        "Island laboratory of Ansa (invented)",
        748.0,
        (
            ("Ca", "118", "mg/L"),
            ("Mg", "9", "mg/L"),
            ("Na", "24", "mg/L"),
            ("K", "3", "mg/L"),
            ("Cl", "31", "mg/L"),
            ("NO3", "21", "mg/L"),
            ("SO4", "58", "mg/L"),
            ("alkalinity", "265", "mg/L CaCO3"),
            ("pH", "7.3", ""),
            ("Fe", "<0.02", "mg/L"),
            ("B", "0.05", "mg/L"),
            ("F", "0.2", "mg/L"),
        ),
    ),
    (
        "Town water",
        150,
        "Ansa waterworks, yearly report (invented)",
        402.0,
        (
            ("Ca", "56", "mg/L"),
            ("Mg", "7.5", "mg/L"),
            ("Na", "16", "mg/L"),
            ("K", "2", "mg/L"),
            ("Cl", "25", "mg/L"),
            ("NO3", "2.7", "mg/L N"),
            ("SO4", "34", "mg/L"),
            ("alkalinity", "2.55", "mmol/L"),
            ("pH", "7.6", ""),
            ("F", "0.15", "mg/L"),
            ("total chlorine", "0.6", "mg/L"),
            ("free chlorine", "0.1", "mg/L"),
            ("Fe", "<0.05", "mg/L"),
            ("B", "<0.1", "mg/L"),
        ),
    ),
)

WATERS = (
    {
        "name": "Rain cistern",
        "kind": "rain",
        "preference": 1,
        "price_per_L": 0.0,
        "disinfectant": "none",
        "on_hand_L": 3.0,
        "capacity_L": 200.0,
    },
    {
        "name": "RO unit",
        "kind": "permeate",
        "preference": 2,
        "price_per_L": 0.02,
        "disinfectant": "unknown",
        "on_hand_L": 1.5,
        "capacity_L": 25.0,
        "membrane_floor_pct": 92.0,
    },
    {"name": "Borehole", "kind": "borehole", "preference": 3, "price_per_L": 0.0, "disinfectant": "none"},
    {"name": "Town water", "kind": "mains", "preference": 4, "price_per_L": 0.002, "disinfectant": "chloramine"},
    {
        "name": "House tap",
        "kind": "softened",
        "preference": 5,
        "price_per_L": 0.002,
        "disinfectant": "unknown",
        "sodium_mg_L": 138.0,
    },
    {
        "name": "Dehumidifier",
        "kind": "condensate",
        "preference": 6,
        "price_per_L": 0.0,
        "disinfectant": "none",
        "on_hand_L": 0.0,
        "capacity_L": 5.0,
    },
)
