"""The ways into this room."""

from fenwa.api.round import bench, days, round
from fenwa.api.ways import Ways

router = Ways()
for part in (round, days, bench):
    router.routes.extend(part.router.routes)
