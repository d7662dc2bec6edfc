"""The yarn basket: yarns and samples."""
