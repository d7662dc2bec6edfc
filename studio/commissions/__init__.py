"""Commissions: what a client sees and agrees to, by a link, and nothing else of the design."""
