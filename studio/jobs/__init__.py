"""Work that takes longer than a request: asked for, watched, cancelled, remembered."""
