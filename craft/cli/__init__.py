"""The `craft` command line: check, draft, gauge, convert, yarn."""

from craft.cli.main import main

__all__ = ["main"]
