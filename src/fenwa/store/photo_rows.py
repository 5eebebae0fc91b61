"""Photos of plants: which there are, of what look, and which stand in a blind rating."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from fenwa.store.models import Leaf, LeafLengthRow, Look, MarkRow, Photo, Rating
from fenwa.store.photo_files import PhotoFolder

KEPT_DAYS = 90  # a deleted photo's file: until then it can be brought back


def newest_photo(session: Session, plant_id: int, until: date) -> Photo | None:
    """The newest photo of a plant up to a day."""
    return session.scalars(_of_plant(plant_id, until).order_by(Photo.on.desc(), Photo.id.desc()).limit(1)).first()


def photos_of(session: Session, plant_id: int, until: date) -> Sequence[Photo]:
    """Photos of a plant, oldest first."""
    return session.scalars(_of_plant(plant_id, until).order_by(Photo.on, Photo.id)).all()


def _of_plant(plant_id: int, until: date):  # type: ignore[no-untyped-def]
    return select(Photo).where(Photo.plant_id == plant_id, Photo.archived_at.is_(None), Photo.on <= until)


def all_photos(session: Session) -> Sequence[Photo]:
    """Every photo that is not archived, oldest first."""
    return session.scalars(select(Photo).where(Photo.archived_at.is_(None)).order_by(Photo.on, Photo.id)).all()


def look_of_photo(session: Session, look_id: int) -> Look | None:
    """The look a photo belongs to, if it is kept."""
    return session.scalars(select(Look).where(Look.id == look_id, Look.archived_at.is_(None))).first()


def ratings_of(session: Session, photo_ids: Sequence[int]) -> dict[int, list[int]]:
    """Scores of photos, in the order they were given."""
    rows = session.execute(
        select(Rating.photo_id, Rating.score)
        .where(Rating.photo_id.in_(photo_ids), Rating.archived_at.is_(None))
        .order_by(Rating.id)
    )
    out: dict[int, list[int]] = {}
    for photo_id, score in rows:
        out.setdefault(photo_id, []).append(score)
    return out


def gone_before(session: Session, before: datetime) -> list[tuple[str, str]]:
    """Files whose every photo was archived before a moment: nobody can undo that any more."""
    long_ago = select(Photo.sha256, Photo.media).where(Photo.archived_at < before).distinct()
    gone = {(name, media) for name, media in session.execute(long_ago)}
    if gone:
        other = (Photo.archived_at.is_(None)) | (Photo.archived_at >= before)
        gone -= {(name, media) for name, media in session.execute(select(Photo.sha256, Photo.media).where(other))}
    return sorted(gone)


def sweep(session: Session, folder: PhotoFolder, now: datetime) -> int:
    """Take away files whose every photo was deleted so long ago that nobody undoes it; how many went."""
    gone = gone_before(session, now - timedelta(days=KEPT_DAYS))
    for name, media in gone:
        folder.forget(name, media)
    return len(gone)


def traced_in(session: Session, photo_id: int) -> list[tuple[int | None, bool, list[list[float]]]]:
    """Midribs and outlines traced in a photo, each with the number of its leaf and whether it is closed. [px]"""
    ribs = session.execute(
        select(Leaf.number, LeafLengthRow.points)
        .join(Leaf, Leaf.id == LeafLengthRow.leaf_id)
        .where(LeafLengthRow.photo_id == photo_id, LeafLengthRow.archived_at.is_(None))
    )
    blades = session.execute(
        select(Leaf.number, MarkRow.outline)
        .outerjoin(Leaf, Leaf.id == MarkRow.leaf_id)
        .where(MarkRow.photo_id == photo_id, MarkRow.archived_at.is_(None))
    )
    return [
        *((number, False, points) for number, points in ribs if points),
        *((number, True, outline) for number, outline in blades if outline),
    ]
