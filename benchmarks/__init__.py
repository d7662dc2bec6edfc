"""Speed and truth, measured: `./spirrel bench`. Nothing here is a timed test."""
