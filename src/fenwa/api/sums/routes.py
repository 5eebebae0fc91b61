"""The ways into this room."""

from fenwa.api.sums import saved, sums
from fenwa.api.ways import Ways

router = Ways()
router.routes.extend(sums.router.routes)
router.routes.extend(saved.router.routes)
