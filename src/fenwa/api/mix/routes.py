"""The ways into this room."""

from fenwa.api.mix import cans, measures, shelf, station, tools
from fenwa.api.ways import Ways

router = Ways()
for part in (station, tools, cans, shelf, measures):
    router.routes.extend(part.router.routes)
