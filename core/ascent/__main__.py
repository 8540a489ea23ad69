"""Run the core's command line: python -m ascent check PLAN.json"""

import sys

from .cli import main

sys.exit(main())
