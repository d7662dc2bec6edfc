"""Who designs here: sign up, sign in, preferences."""
