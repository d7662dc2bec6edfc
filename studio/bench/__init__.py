"""Computation on request: previews, drafts of shapes, vocabulary. Keeps nothing."""
