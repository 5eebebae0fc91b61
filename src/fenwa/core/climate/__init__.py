"""Air and light of a place: what a logger or a lamp says, and what follows from it."""
