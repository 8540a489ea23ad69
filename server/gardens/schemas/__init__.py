"""What the API takes and gives, beyond the core's own types."""

from .gardens import *  # noqa: F403
from .people import *  # noqa: F403
from .structures import *  # noqa: F403
