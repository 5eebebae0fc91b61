"""The house: places, settings, options, the door to the network."""
