"""The Water station: sources, readings, meters, reports, remedies, devices."""
