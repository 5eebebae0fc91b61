"""The ways into this room."""

from fenwa.api.log import log, pours
from fenwa.api.ways import Ways

router = Ways()
for part in (pours, log):
    router.routes.extend(part.router.routes)
