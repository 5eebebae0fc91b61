"""What is wrong? Signs and the log against the causes there are, and the gentlest next check."""
