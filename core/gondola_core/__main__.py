"""`python -m gondola_core` is the `gondola` command."""

import sys

from .cli import main

sys.exit(main())
