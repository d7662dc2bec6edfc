"""The shelf of pieces: parts that are kept to be used again, with whose they are and on what terms."""
