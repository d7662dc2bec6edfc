"""Proving: the making log and testers, as rows of their own that no undo of the design touches."""
