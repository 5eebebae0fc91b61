"""Measuring in photos: scale, lengths, brown and yellow, two photos over each other."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from sqlalchemy.orm import Session

from fenwa.api.leaves.photo_shown import Folder, PhotoOut, photo_out, rim_of, scale_of
from fenwa.api.model import Model
from fenwa.api.pots.shown import one_pot
from fenwa.api.transactions import OneWrite, ReadSession, Stored, Today, get_row
from fenwa.api.typed import TypedOrNone
from fenwa.api.ways import Ways
from fenwa.core.entry import require
from fenwa.core.errors import Conflict, InputError, Underspecified
from fenwa.core.leaf.changes import Between, between
from fenwa.core.leaf.colours import MARK_OF, ColourCount, PhotoMarks, Thresholds, colours_inside, photo_marks
from fenwa.core.leaf.photo import (
    Frame,
    Laid,
    PhotoLength,
    PhotoPair,
    PhotoPoint,
    PhotoScale,
    RimTaps,
    Trace,
    frame_of,
    on_ruler,
    photo_length,
    photo_pair,
    tap_error,
)
from fenwa.core.working import Computed
from fenwa.store import models
from fenwa.store.leaf_rows import changes_between, leaves_of
from fenwa.store.look_rows import leaf_of, recount_marks
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.photo_rows import look_of_photo, traced_in
from fenwa.store.summary import refresh

router = Ways(prefix="/api", tags=["photos"])


class Taps(Model):
    """Two taps at the ends of a known length; empty ``known_mm``: the pot's own rim. [px, mm]"""

    first: PhotoPoint
    second: PhotoPoint
    known_mm: TypedOrNone = None
    shown_px: float = 1000.0  # width the photo was shown at when it was tapped


class PhotoTapsIn(Model):
    """Taps for the scale, and taps along a midrib from base to tip; empty ``points``: the scale alone. [px]"""

    taps: Taps
    points: list[PhotoPoint] = []


class MeasuredOut(Model):
    """The scale and the length with their workings. Length None: fewer than two taps so far."""

    scale: Computed[PhotoScale]
    length: Computed[PhotoLength] | None


def _known(session: Session, row: models.Photo, taps: Taps) -> RimTaps:
    rim = session.get_one(models.Pot, row.pot_id).top_cm
    known = taps.known_mm if taps.known_mm is not None else None if rim is None else rim * 10
    if known is None:
        raise Underspecified(
            "How wide the rim of this pot is was never entered. Enter the length between the taps.",
            pointer="/taps/known_mm",
        )
    require(known, "Known length", "mm", low=0, open_low=True, high=5000, pointer="/taps/known_mm")
    return RimTaps(taps.first, taps.second, known)


def _measured(session: Session, row: models.Photo, body: PhotoTapsIn) -> MeasuredOut:
    scale = scale_of(row, _known(session, row, body.taps), body.taps.shown_px)
    length = None
    if len(body.points) > 1:
        length = photo_length(
            points=body.points,
            mm_per_px=scale.result.mm_per_px,
            scale_error=scale.result.error,
            tap_px=tap_error(row.width_px, body.taps.shown_px),
        )
    return MeasuredOut(scale=scale, length=length)


@router.post("/photos/{photo_id}/measured/preview")
def preview_measured(photo_id: int, body: PhotoTapsIn, session: ReadSession) -> MeasuredOut:
    """The scale and the length that taps give; nothing is stored."""
    return _measured(session, get_row(session, models.Photo, photo_id, "Photo"), body)


@router.post("/photos/{photo_id}/scale", status_code=201)
def set_scale(photo_id: int, body: Taps, writer: OneWrite) -> Stored:
    """Keep the scale of a photo."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Photo, photo_id, "Photo")
        _set_scale(session, row, body)
        return {"id": row.id}

    return Stored(**writer.once(body, write))


def _set_scale(session: Session, row: models.Photo, taps: Taps) -> None:
    rim = _known(session, row, taps)
    scale_of(row, rim, taps.shown_px)
    row.scale = {
        "first": vars(rim.first),
        "second": vars(rim.second),
        "known_mm": rim.known_mm,
        "shown_px": taps.shown_px,
    }


class LengthIn(PhotoTapsIn):
    """A measured length for a leaf's record."""

    leaf_id: int
    growing: bool | None = None


@router.post("/photos/{photo_id}/lengths", status_code=201)
def keep_length(photo_id: int, body: LengthIn, writer: OneWrite) -> Stored:
    """Keep a length read in a photo with its leaf, and the scale with the photo."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Photo, photo_id, "Photo")
        found = _measured(session, row, body).length
        if found is None:
            raise InputError("Tap at least two points along the midrib, from base to tip.", pointer="/points")
        leaf = leaf_of(session, row.plant_id, body.leaf_id, "/leaf_id")
        if leaf.opened_on > row.on:
            raise Conflict(
                f"Leaf {leaf.number} opened on {leaf.opened_on.isoformat()}, after this photo of "
                f"{row.on.isoformat()}. Choose the leaf that is in it.",
                pointer="/leaf_id",
            )
        _set_scale(session, row, body.taps)
        kept = models.LeafLengthRow(
            leaf_id=leaf.id,
            photo_id=row.id,
            on=row.on,
            mm=found.result.mm,
            low_mm=found.result.low_mm,
            high_mm=found.result.high_mm,
            growing=body.growing,
            origin="photo",
            working=asdict(found.working),
            points=[[p.x, p.y] for p in body.points],
        )
        session.add(kept)
        session.flush()
        refresh(session, row.pot_id)
        return {"id": kept.id}

    return Stored(**writer.once(body, write))


class MarksIn(Model):
    """An outline traced around a blade, and where colours part; ``grey_at``: where a grey card lies. [px]"""

    outline: list[PhotoPoint]
    thresholds: Thresholds = Thresholds()
    grey_at: PhotoPoint | None = None


@router.post("/photos/{photo_id}/marks/preview")
def preview_marks(photo_id: int, body: MarksIn, session: ReadSession, folder: Folder) -> Computed[PhotoMarks]:
    """Brown and yellow share inside an outline; nothing is stored."""
    return _shares(get_row(session, models.Photo, photo_id, "Photo"), body, folder)


def _shares(row: models.Photo, body: MarksIn, folder: PhotoFolder) -> Computed[PhotoMarks]:
    pixels = folder.pixels(row.sha256, row.media)
    k = pixels.shape[1] / row.width_px
    outline = [PhotoPoint(p.x * k, p.y * k) for p in body.outline]
    grey: ColourCount | None = None
    if body.grey_at is not None:
        x, y, half = body.grey_at.x * k, body.grey_at.y * k, 6.0
        card = [PhotoPoint(x + i * half, y + j * half) for i, j in ((-1, -1), (1, -1), (1, 1), (-1, 1))]
        seen = colours_inside(pixels, card)
        grey = max(seen, key=lambda c: c.pixels)
    return photo_marks(colours=colours_inside(pixels, outline), thresholds=body.thresholds, grey=grey)


class MarksKept(MarksIn):
    """Shares the grower accepts or corrects, for one leaf. Empty: as the photo tells. [%]"""

    leaf_id: int
    brown_pct: TypedOrNone = None
    yellow_pct: TypedOrNone = None
    old: bool = False


@router.post("/photos/{photo_id}/marks", status_code=201)
def keep_marks(photo_id: int, body: MarksKept, writer: OneWrite, folder: Folder) -> Stored:
    """Keep the brown and yellow of a leaf as marks of the photo's look."""

    def write(session: Session) -> dict[str, Any]:
        row = get_row(session, models.Photo, photo_id, "Photo")
        shares = _shares(row, body, folder).result
        leaf = leaf_of(session, row.plant_id, body.leaf_id, "/leaf_id")
        look = look_of_photo(session, row.look_id) if row.look_id is not None else None
        if look is None:  # a photo somebody reads is a look
            look = models.Look(pot_id=row.pot_id, plant_id=row.plant_id, on=row.on, marks=[], marks_looked_for=True)
            session.add(look)
            session.flush()
            row.look_id = look.id
        first = None
        for colour, kind in MARK_OF.items():
            given = getattr(body, f"{colour}_pct")
            share = getattr(shares, colour) if given is None else given
            require(share, "Share of the leaf", "%", low=0, high=100, pointer=f"/{colour}_pct")
            if share <= 0:
                continue
            mark = models.MarkRow(
                look_id=look.id,
                leaf_id=leaf.id,
                kind=kind,
                place="blade",
                share_pct=share,
                old=body.old,
                photo_id=row.id,
                outline=[[p.x, p.y] for p in body.outline],
            )
            session.add(mark)
            session.flush()
            first = first or mark.id
        if first is None:
            raise InputError("Neither brown nor yellow: there is no mark to keep.", pointer="/brown_pct")
        recount_marks(session, look.id)
        return {"id": first}

    return Stored(**writer.once(body, write))


class Compared(Model):
    """Two photos on one ruler, what changed between them, and which leaf formed after it."""

    before: PhotoOut
    after: PhotoOut
    pair: Computed[PhotoPair]
    before_frame: Frame
    after_frame: Frame
    before_traces: list[Trace]
    after_traces: list[Trace]
    between: Between


def _traces(session: Session, photo_id: int, laid: Laid) -> list[Trace]:
    """What was traced in a photo, on the common ruler."""
    return [
        Trace(number, closed, on_ruler(laid, [PhotoPoint(x, y) for x, y in points]))
        for number, closed, points in traced_in(session, photo_id)
    ]


@router.get("/photos/{photo_id}/against/{other_id}")
def compare_photos(photo_id: int, other_id: int, session: ReadSession, today: Today) -> Compared:
    """Two photos of one plant set to one scale by the rim, the earlier first."""
    rows = [get_row(session, models.Photo, i, "Photo") for i in (photo_id, other_id)]
    if rows[0].plant_id != rows[1].plant_id:
        raise Conflict("These photos show two plants. Choose two of one plant.", pointer="/other_id")
    first, second = sorted(rows, key=lambda r: (r.on, r.id))
    taps = [rim_of(r.scale) for r in (first, second)]
    for row, found in zip((first, second), taps, strict=True):
        if found is None:
            raise Underspecified(
                f"The photo of {row.on.isoformat()} has no scale yet. Tap both ends of the rim in it.",
                pointer="/photo_id" if row.id == photo_id else "/other_id",
            )
    assert taps[0] is not None
    assert taps[1] is not None
    pair = photo_pair(before=taps[0], after=taps[1], days=(second.on - first.on).days)
    p = one_pot(session, first.pot_id, today)
    happened = changes_between(session, first.pot_id, first.on, second.on)
    leaves = leaves_of(session, [first.plant_id], second.on).get(first.plant_id, [])
    changed = between(
        leaves=leaves, changes=happened, before_on=first.on, after_on=second.on, lag_days=p.profile.lag_days.overfeeding
    )
    return Compared(
        before=photo_out(first),
        after=photo_out(second),
        pair=pair,
        before_frame=frame_of(pair.result.before, first.width_px, first.height_px),
        after_frame=frame_of(pair.result.after, second.width_px, second.height_px),
        before_traces=_traces(session, first.id, pair.result.before),
        after_traces=_traces(session, second.id, pair.result.after),
        between=changed,
    )
