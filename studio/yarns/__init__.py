"""The yarn basket: yarns and swatches."""
