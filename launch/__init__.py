"""Starts, stops and tests Spirrel on a bare machine. Standard library only: it runs before anything is installed."""
