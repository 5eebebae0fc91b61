"""The ways into this room."""

from fenwa.api.start import look, start
from fenwa.api.ways import Ways

router = Ways()
router.routes.extend(start.router.routes)
router.routes.extend(look.router.routes)
