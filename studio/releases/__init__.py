"""Releases: a design frozen under a number and a date, with its files as they were printed then, and its errata."""
