"""The ways into this room."""

from fenwa.api.answers import answers, report, seasons, trials, wrong
from fenwa.api.ways import Ways

router = Ways()
for part in (answers, trials, seasons, report, wrong):
    router.routes.extend(part.router.routes)
