"""`python -m craft`: the command line."""

import gc
import sys

# A process that answers one command and ends gives nothing back to look for meanwhile: a tenth of its start went there.
gc.set_threshold(20_000)

from craft.cli import main  # noqa: E402

sys.exit(main())
