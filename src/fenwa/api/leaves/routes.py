"""The ways into this room."""

from fastapi import APIRouter

from fenwa.api.leaves import laid, look_asked, looks, measuring, photos, records, series, station

router = APIRouter()
for part in (station, laid, look_asked, looks, records, photos, measuring, series):
    router.routes.extend(part.router.routes)
