"""What stands at the demonstration's Mix station: packs and prices, cans, a weighed spoon, recipes, a stock
bottle, prey.
"""

from __future__ import annotations

from dataclasses import asdict
from datetime import date, timedelta

from sqlalchemy.orm import Session

from fenwa.core.mix.feed import Feed
from fenwa.core.mix.spoon import spoon_calibration
from fenwa.core.mix.stock import stock_solution
from fenwa.core.water.kinds import BaseWater
from fenwa.store import models
from fenwa.store.mix_state import label_of

# price of a pack, what it holds, opened how many days ago, what is left (g or mL)
PACKS = {
    "balanced_13_3_15_ca_mg": (18.0, 1000.0, 190, 410.0),
    "foliage_20_8_16_urea": (9.5, 500.0, 320, 380.0),
    "liquid_6_2_5": (11.0, 1000.0, 60, 700.0),
    "calcium_magnesium_supplement": (12.0, 500.0, 90, 360.0),
    "calcium_nitrate_tetrahydrate": (7.0, 1000.0, 400, 820.0),
    "magnesium_sulfate_heptahydrate": (4.0, 1000.0, 400, 900.0),
    "potassium_nitrate": (8.0, 1000.0, 400, 940.0),
    "monopotassium_phosphate": (10.0, 500.0, 400, 470.0),
}
VESSELS = (("Mist bottle", "mist bottle", 0.5), ("Small can", "can", 1.5), ("Big can", "can", 5.0))
SPOON, LEVELS = (11.0, 12.0, 11.0, 12.0, 11.0), 10


def furnish_mix(session: Session, today: date, products: dict[str, models.Product], pots: dict[str, int]) -> None:
    """Add it all, relative to today."""
    for library_id, (price, pack, days, left) in PACKS.items():
        p = products[library_id]
        p.owned = True
        p.price, p.pack_amount, p.opened_on = price, pack, today - timedelta(days=days)
        p.left_amount, p.left_on = left, today - timedelta(days=20)
    session.add_all([models.Vessel(name=n, kind=k, volume_L=v) for n, k, v in VESSELS])
    feed = products["balanced_13_3_15_ca_mg"]
    spoon = spoon_calibration(kind="spoon", weighings=list(SPOON), levels_each=LEVELS, scale_step_g=1.0, volume_mL=1.25)
    c = spoon.result
    session.add(
        models.Measure(
            name="blue spoon",
            kind="spoon",
            product_id=feed.id,
            on=today - timedelta(days=70),
            weighings=[{"weighed": w, "levels": LEVELS} for w in SPOON],
            volume_mL=1.25,
            each=c.each,
            unit=c.unit,
            cv=c.cv,
            mean_error_pct=c.mean_error_pct,
            working=asdict(spoon.working),
        )
    )
    _recipes(session, today, products)
    _bottle(session, today, products)
    prey = products["prey_insects"]
    for code, days in (("S-01", 61), ("G-01", 24), ("G-02", 24)):
        session.add(
            models.Feeding(
                pot_id=pots[code], product_id=prey.id, on=today - timedelta(days=days), amount=2.0, unit="items"
            )
        )


def _recipes(session: Session, today: date, products: dict[str, models.Product]) -> None:
    """A thin mist for leaves in two versions: it was weakened in autumn."""
    recipe = models.Recipe(name="Mist for butterworts")
    session.add(recipe)
    session.flush()
    liquid = products["liquid_6_2_5"]
    for version, days, value in ((1, 150, 25.0), (2, 45, 15.0)):
        session.add(
            models.RecipeVersion(
                recipe_id=recipe.id,
                version=version,
                made_on=today - timedelta(days=days),
                product_id=liquid.id,
                label=liquid.label,
                strength="nitrogen",
                value=value,
                route="leaf",
                school_id="leaf_before_dark",
            )
        )


def _bottle(session: Session, today: date, products: dict[str, models.Product]) -> None:
    made_on = today - timedelta(days=26)
    label = label_of(products["balanced_13_3_15_ca_mg"])
    made = stock_solution(
        feeds=[Feed(label, 0.4)],
        volume_L=1.5,
        base=BaseWater(34.0, "rain", None, "Rain cistern"),
        scale_step_g=1.0,
        draw_mL_per_L=20.0,
        bottle_mL=1000.0,
        made_on=made_on,
    )
    for b in made.result.bottles:
        session.add(
            models.StockBottle(
                made_on=made_on,
                name=b.contents[0].name,
                letter=b.letter,
                contents=[asdict(x) for x in b.contents],
                volume_mL=b.volume_mL,
                draw_mL_per_L=made.result.draw_mL_per_L,
                dilution=made.result.dilution,
                hazard=b.hazard,
                use_by=made.result.use_by,
                working=asdict(made.working),
            )
        )
