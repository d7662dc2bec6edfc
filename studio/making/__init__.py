"""Makings: who works a figure from which edition, and the log of it, written on any device, by her or by a tester."""
