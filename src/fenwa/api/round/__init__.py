"""The round: today, the days ahead, at the bench."""
