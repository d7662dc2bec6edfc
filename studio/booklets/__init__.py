"""The written pattern as page, print and text."""
