"""Devices behind one small protocol: a line of SenML at a time."""
