"""What the plants answer: leaves over time, their usual size and rhythm, and what a change may be read from."""
