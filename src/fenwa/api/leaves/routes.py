"""The ways into this room."""

from fenwa.api.leaves import laid, look_asked, looks, measuring, photos, records, series, station
from fenwa.api.ways import Ways

router = Ways()
for part in (station, laid, look_asked, looks, records, photos, measuring, series):
    router.routes.extend(part.router.routes)
