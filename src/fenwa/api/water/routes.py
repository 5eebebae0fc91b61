"""The ways into this room."""

from fenwa.api.water import devices, meters, readings, remedies, reports, sources, tools
from fenwa.api.ways import Ways

router = Ways()
for part in (sources, remedies, readings, meters, reports, tools, devices):
    router.routes.extend(part.router.routes)
