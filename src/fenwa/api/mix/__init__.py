"""The Mix station and the shelf: feeds, cans, recipes, tools."""
