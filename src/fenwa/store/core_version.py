"""By which figures a log was folded."""

import fenwa

# Raise the last figure when a default of the balance, or the form in which a fold is kept, changes.
CORE_VERSION = f"{fenwa.__version__}/12"
