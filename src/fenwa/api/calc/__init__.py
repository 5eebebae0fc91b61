"""Every registered calculation over HTTP."""
