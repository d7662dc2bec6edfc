"""The demo studio "Lanternwick": made up, loaded once on a fresh installation."""
