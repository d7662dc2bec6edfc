"""Designs with their revisions, part versions, drafts, pages of notes and pictures."""
