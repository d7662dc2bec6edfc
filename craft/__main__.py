"""`python -m craft`: the command line."""

import sys

from craft.cli import main

sys.exit(main())
