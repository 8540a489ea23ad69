"""What fits and what does not, and how to build with care."""

from __future__ import annotations

from .. import tables
from ..analysis.design import Design
from ..families import family_of
from ..path.geometry import Geometry
from ..words.quantities import System
from ..words.texts import say, template
from .figures import capital
from .readout import RemarkReport


def remark_reports(e: Design, system: System) -> tuple[RemarkReport, ...]:
    """Return every remark on a structure in words, what is wrong first."""
    return tuple(
        RemarkReport(
            key=r.key,
            level=r.level,
            text=capital(say(f"remark.{r.key}", system, r.values, r.words)),
            source=tables.sources()[r.source].title,
            levers=r.levers,
        )
        for r in e.findings
    )


def cautions_of(family: str, geometry: Geometry) -> tuple[str, ...]:
    """Return what to take care of in building a structure."""
    return tuple(template(f"caution.{key}") for key in family_of(family).cautions(geometry))
