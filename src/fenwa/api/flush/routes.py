"""The ways into this room."""

from fenwa.api.flush import readings, reservoirs, sessions, station, together, ways
from fenwa.api.ways import Ways

router = Ways()
for part in (station, together, readings, ways, sessions, reservoirs):
    router.routes.extend(part.router.routes)
