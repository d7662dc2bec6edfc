"""How laws are tried: the same examples at every run, so that a red check is the work of the change that is checked.

New examples are looked for on purpose: `./spirrel test craft -- --hypothesis-profile=explore`.
"""

from __future__ import annotations

from hypothesis import settings

settings.register_profile("steady", derandomize=True, database=None, deadline=None)
settings.register_profile("explore", derandomize=False, database=None, deadline=None, max_examples=400, print_blob=True)
settings.load_profile("steady")
