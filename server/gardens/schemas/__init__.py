"""What the API takes and gives: its own types, and the core's that it hands through."""

from ascent.files.csv_tables import Table as Table
from ascent.telling.choosing import KindReport as KindReport
from ascent.telling.readout import CurveReport as CurveReport
from ascent.telling.readout import LinkFixes as LinkFixes
from ascent.telling.readout import Report as Report
from ascent.telling.readout import Rests as Rests
from ascent.telling.readout import Sizing as Sizing
from ascent.telling.readout import SolidReport as SolidReport
from ascent.telling.readout import WishReport as WishReport
from ascent.telling.season_readout import YearRow as YearRow
from ascent.words.quantities import System as System

from .gardens import *  # noqa: F403
from .log import *  # noqa: F403
from .people import *  # noqa: F403
from .season import *  # noqa: F403
from .structures import *  # noqa: F403
