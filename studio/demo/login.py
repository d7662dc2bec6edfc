"""The demo studio's name and password. It exists only where the studio is served on loopback."""

USERNAME = "lanternwick"
PASSWORD = "glow-by-night"  # noqa: S105 - printed at every start
