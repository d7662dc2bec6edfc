"""Links: what lets somebody without an account do one thing with one design, until a day."""
