"""What the API takes and gives: its own types, and the core's that it hands through."""

from ascent.files.csv_tables import Table as Table
from ascent.report.choosing import KindReport as KindReport
from ascent.report.readout import CurveReport as CurveReport
from ascent.report.readout import LinkFixes as LinkFixes
from ascent.report.readout import Report as Report
from ascent.report.readout import SensitivityReport as SensitivityReport
from ascent.report.readout import Sizing as Sizing
from ascent.report.readout import SolidReport as SolidReport
from ascent.report.readout import WishReport as WishReport
from ascent.report.season_readout import YearRow as YearRow
from ascent.words.quantities import System as System

from .gardens import *  # noqa: F403
from .log import *  # noqa: F403
from .people import *  # noqa: F403
from .season import *  # noqa: F403
from .structures import *  # noqa: F403
