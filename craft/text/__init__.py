"""Rounds as people write them: notation, checking, changes of a text, files."""
