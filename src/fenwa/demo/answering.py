"""What the demonstration's plants answered: marks with their leaf, roots, dew, pitchers, spikes, and their photos."""

from __future__ import annotations

from dataclasses import asdict
from datetime import date, timedelta

import numpy as np
from sqlalchemy.orm import Session

from fenwa.core.leaf.marks import OF_PLANT, OF_POT, place_of
from fenwa.core.leaf.photo import PhotoPoint, photo_length, photo_scale
from fenwa.core.library.loader import get_profile
from fenwa.demo.photographs import DrawnLeaf, photograph
from fenwa.formats.photo import read_photo
from fenwa.store import models
from fenwa.store.photo_files import PhotoFolder

SEED = 41_877
# pots that are photographed: their rim, and how many days before today. [cm, d]
PHOTOGRAPHED: dict[str, tuple[float, tuple[int, ...]]] = {
    "P-06": (15.0, (150, 92, 61, 16)),
    "P-01": (12.0, (92, 16)),
    "M-04": (9.5, (61, 20)),
}
SHOWN = 7  # leaves a photo shows: the newest
OLD_DAYS = 420  # a leaf as old turns yellow


def furnish_answers(session: Session, today: date, photos: PhotoFolder | None) -> None:
    """Marks, organs and photos to the looks that are there; drawn by a seed of its own, so that nothing else moves."""
    for plant in session.query(models.Plant).order_by(models.Plant.id):
        rng = np.random.default_rng([SEED, plant.id])
        looks = session.query(models.Look).filter_by(plant_id=plant.id).order_by(models.Look.on).all()
        leaves = (
            session.query(models.Leaf)
            .join(models.Growth, models.Growth.id == models.Leaf.growth_id)
            .filter(models.Growth.plant_id == plant.id)
            .order_by(models.Leaf.opened_on)
            .all()
        )
        for number, leaf in enumerate(leaves, 1):
            leaf.number = number
        session.flush()
        for i, look in enumerate(looks):
            _marks(session, rng, look)
            if i % 2 == 0:
                _organs(session, rng, plant, look, i / max(1, len(looks)))
        code = session.get_one(models.Pot, plant.pot_id).code
        if photos is not None and code in PHOTOGRAPHED and leaves:
            _photos(session, rng, plant, looks, leaves, today, photos)
    session.flush()


def _marks(session: Session, rng: np.random.Generator, look: models.Look) -> None:
    for kind in look.marks:
        bare = kind in OF_POT | OF_PLANT
        session.add(
            models.MarkRow(
                look_id=look.id,
                leaf_id=None if bare else look.leaf_id,
                kind=kind,
                place="unknown" if bare else place_of(kind, "unknown"),
                texture="crisp" if kind == "tip" and rng.random() < 0.6 else "",
                mm=float(rng.integers(3, 10)) if kind == "tip" and look.leaf_id else None,
            )
        )


def _organs(session: Session, rng: np.random.Generator, plant: models.Plant, look: models.Look, along: float) -> None:
    """Each organ of the kind; salt that browns tips costs root tips and dew as well."""
    shows = get_profile(plant.profile_id).shows
    hurt = 0.35 if "tip" in look.marks else 0.0

    def seen(organ: str, **more: object) -> None:
        session.add(models.OrganRow(look_id=look.id, organ=organ, **more))

    if "root tips" in shows:
        of = int(rng.integers(4, 8))
        live = round(of * max(0.1, min(1.0, 0.85 - hurt + float(rng.normal(0, 0.08)))))
        seen("root tips", count=live, of=of, words={"wet": "green", "dry": "silver"})
    if "dew" in shows:
        seen("dew", percent=float(round(max(0, min(100, 82 - 60 * hurt + rng.normal(0, 6))))))
    if "pitchers" in shows:
        opened = int(rng.integers(3, 7))
        seen("pitchers", count=opened, of=int(rng.integers(0, 2)), words={"fluid": "full", "lid": "open"})
    if "internodes" in shows:
        seen("internodes", mm=float(round(38 + 6 * rng.normal())))
    if "bulbs" in shows:
        seen("bulbs", count=float(5 + int(3 * along)), words={"skin": "plump"})
    if "spikes" in shows and along > 0.8:
        seen("spikes", count=1.0, mm=float(round(40 + 900 * (along - 0.8))), words={"stage": "growing"})
    elif "spikes" in shows:
        seen("spikes", told="none seen")


def _photos(
    session: Session,
    rng: np.random.Generator,
    plant: models.Plant,
    looks: list[models.Look],
    leaves: list[models.Leaf],
    today: date,
    folder: PhotoFolder,
) -> None:
    pot = session.get_one(models.Pot, plant.pot_id)
    rim_cm, taken = PHOTOGRAPHED[pot.code]
    pot.top_cm = rim_cm
    lengths = {x.leaf_id: x.newest_leaf_mm for x in looks if x.leaf_id and x.newest_leaf_mm}
    burnt = {x.leaf_id for x in looks if "tip" in x.marks}
    for n, days in enumerate(taken):
        on = today - timedelta(days=days)
        there = [x for x in leaves if x.opened_on <= on and x.id in lengths][-SHOWN:]
        if not there:
            continue
        seen = [x for x in looks if x.on <= on]
        drawn = photograph(
            rng,
            rim_mm=10 * rim_cm,
            leaves=[
                DrawnLeaf(lengths[x.id] or 0.0, 0.09 if x.id in burnt else 0.0, (on - x.opened_on).days > OLD_DAYS)
                for x in there
            ],
            crust=bool(seen) and any("crust" in x.marks for x in seen[-4:]),
            warm=float(rng.uniform(-0.02, 0.02)),
        )
        clean = read_photo(drawn.jpeg)
        row = models.Photo(
            pot_id=plant.pot_id,
            plant_id=plant.id,
            look_id=seen[-1].id if seen and (on - seen[-1].on).days < 8 else None,
            on=on,
            sha256=folder.keep(clean.data, clean.media, for_list=clean.for_list, for_screen=clean.for_screen),
            media=clean.media,
            width_px=clean.width,
            height_px=clean.height,
            bytes=len(clean.data),
        )
        session.add(row)
        session.flush()
        if n == len(taken) - 1 and pot.code != "P-06":
            continue  # the newest of the others waits for its scale
        ends = [PhotoPoint(float(x), float(y)) for x, y in drawn.rim]
        row.scale = {"first": asdict(ends[0]), "second": asdict(ends[1]), "known_mm": 10 * rim_cm, "shown_px": 760.0}
        scale = photo_scale(first=ends[0], second=ends[1], known_mm=10 * rim_cm).result
        for leaf, rib in list(zip(there, drawn.midribs, strict=True))[-3:]:
            taps = [PhotoPoint(x + float(rng.normal(0, 1)), y + float(rng.normal(0, 1))) for x, y in rib]
            found = photo_length(points=taps, mm_per_px=scale.mm_per_px, scale_error=scale.error)
            session.add(
                models.LeafLengthRow(
                    leaf_id=leaf.id,
                    photo_id=row.id,
                    on=on,
                    mm=found.result.mm,
                    low_mm=found.result.low_mm,
                    high_mm=found.result.high_mm,
                    origin="photo",
                    working=asdict(found.working),
                    points=[[p.x, p.y] for p in taps],
                )
            )
