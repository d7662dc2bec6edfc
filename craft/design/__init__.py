"""The whole figure as one value, and what is done to it."""
