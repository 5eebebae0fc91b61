"""The reviewed library: profiles, fertilizers, schools, media and habits as typed rows."""
