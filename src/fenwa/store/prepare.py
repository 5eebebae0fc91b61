"""What a store needs before it is served."""

from __future__ import annotations

from dataclasses import asdict
from datetime import UTC, datetime

from fenwa.core.library.loader import fertilizers
from fenwa.store.collection import refresh_stale
from fenwa.store.mix_rows import library_ids
from fenwa.store.models import Product
from fenwa.store.photo_files import PhotoFolder
from fenwa.store.photo_rows import sweep
from fenwa.store.session import Store


def prepare_store(store: Store) -> None:
    """Bring the shipped library to the shelf and fold what is stale; nothing of the user's is touched."""
    with store.writing() as session:
        known = library_ids(session)
        for item in fertilizers().values():
            if item.id not in known:
                session.add(Product(library_id=item.id, name=item.label.name, label=asdict(item.label)))
        refresh_stale(session)
        sweep(session, PhotoFolder(store.path), datetime.now(UTC).replace(tzinfo=None, microsecond=0))
