"""Attacks on a studio on loopback, each bounded in time and size, that print how the others fared meanwhile."""
