"""The ways into this room."""

from fenwa.api.care import care, decisions, plans, ready
from fenwa.api.ways import Ways

router = Ways()
for part in (care, ready, decisions, plans):
    router.routes.extend(part.router.routes)
