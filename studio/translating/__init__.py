"""Translators: whoever holds a link writes the designer's prose in another language; she takes over what she wants."""
