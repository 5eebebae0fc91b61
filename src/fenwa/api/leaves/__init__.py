"""The Leaf station."""
