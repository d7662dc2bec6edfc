"""A design in other yarns and at other heights."""
