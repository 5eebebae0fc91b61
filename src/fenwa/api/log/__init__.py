"""What is logged at a pot, and its corrections."""
