"""Quick sums that need no record."""
