"""Designs with their revisions, part versions, typed texts, pages of notes and pictures."""
