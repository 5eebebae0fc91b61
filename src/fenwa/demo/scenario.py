"""The Ansa Orangery: an invented signal station's winter garden on an invented island.

Who stands there and what happened to them. Every figure is made up for the demonstration.
"""

from __future__ import annotations

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
