"""The start: three questions, and a look around in the demonstration."""
