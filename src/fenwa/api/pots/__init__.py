"""The Pots station: the collection, one pot’s strata, files."""
