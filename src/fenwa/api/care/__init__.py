"""What rules a pot’s care: its kind, readiness, decisions."""
