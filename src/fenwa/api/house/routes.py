"""The ways into this room."""

from fenwa.api.house import air, archive, backups, lan, options, places, settings
from fenwa.api.ways import Ways

router = Ways()
for part in (options, places, air, archive, backups, lan, settings):
    router.routes.extend(part.router.routes)
