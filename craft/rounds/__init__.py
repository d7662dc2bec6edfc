"""What rounds are and what they do: stitches, written values, sums, and the machine that works them."""
