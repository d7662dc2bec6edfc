"""Filters of the booklet's template."""
