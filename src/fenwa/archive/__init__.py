"""A whole collection out of Fenwa and into one: the file and the database brought together."""
