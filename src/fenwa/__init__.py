"""Fenwa: the way of salt from water to leaf."""

__version__ = "0.1.0"
