"""Backups: everything in one file, taken in one moment, checked when it is written and when it is put back."""
