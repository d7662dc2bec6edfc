"""The computation of Spirrel: rounds, fabric, shapes, sizes. No web, no database, no pages.

Modules import only modules earlier in the list that docs/architecture.md gives; import-linter holds them to it.
"""

__version__ = "0.1.0"
"""Version of the craft, kept beside everything it computed."""
