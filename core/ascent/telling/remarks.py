"""What fits and what does not, and how to build with care."""

from __future__ import annotations

from typing import Literal

import numpy as np

from .. import tables
from ..families import family_of
from ..path.geometry import Geometry
from ..report.evaluation import Evaluation
from ..words.quantities import System
from ..words.texts import say, template
from .figures import capital
from .readout import RemarkReport


def remark_reports(e: Evaluation, system: System) -> tuple[RemarkReport, ...]:
    remark_reports = [
        RemarkReport(
            key=r.key,
            level=r.level,
            text=capital(say(f"remark.{r.key}", system, r.values, r.words)),
            source=tables.sources()[r.source].title,
            levers=r.levers,
        )
        for r in e.remarks
    ]
    for service in e.service:
        amount = float(
            np.max(
                np.broadcast_to(service.amount, np.broadcast_shapes(service.amount.shape, (1, 1, 3)))[0, :, 1]
            )
        )
        values = {"amount": (amount, "length"), "limit": (service.limit, "length")}
        level: Literal["fine", "watch"] = "watch" if amount > service.limit else "fine"
        remark_reports.append(
            RemarkReport(
                key=service.key,
                level=level,
                text=say(f"remark.{service.key}", system, values),
                source=tables.sources()[service.source].title,
                levers=service.levers,
            )
        )
    order = {"wrong": 0, "watch": 1, "fine": 2}
    return tuple(sorted(remark_reports, key=lambda remark: order[remark.level]))


def cautions_of(family: str, geometry: Geometry) -> tuple[str, ...]:
    """Return what to take care of in building a structure."""
    return tuple(template(f"caution.{key}") for key in family_of(family).cautions(geometry))
