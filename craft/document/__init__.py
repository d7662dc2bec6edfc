"""The pattern as it is published."""
