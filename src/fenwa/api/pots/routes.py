"""The ways into this room."""

from fenwa.api.pots import candidates, collection, files, pots, repotting, said
from fenwa.api.ways import Ways

router = Ways()
for part in (candidates, collection, repotting, files, said, pots):
    router.routes.extend(part.router.routes)
