"""By which figures a log was folded."""

import fenwa

CORE_VERSION = f"{fenwa.__version__}/11"  # raise the last figure when a default of the balance changes
