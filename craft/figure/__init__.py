"""What rounds will look like: settled figures, what is placed on them, pictures, and what they take."""
