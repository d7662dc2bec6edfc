"""A shape held against the figure it settles to: outcome, compensation, other ways, flat panels."""
