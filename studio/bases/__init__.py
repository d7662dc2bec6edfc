"""From a base to a figure: what its base has that is new, two designs compared, one part gone on as another."""
