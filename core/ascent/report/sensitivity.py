"""The sensitivity of the limit gust, and how one option changes it."""

from __future__ import annotations

from ..analysis.design import design_of
from ..analysis.sensitivity import sensitivity
from ..families import family_of
from ..family.options import extra_of
from ..plan.fields import GREATEST_GUST
from ..plan.structure import Structure
from ..site import Site
from ..sizing.curves import curve
from ..sizing.representative import WHOLE, Representative, representative
from ..wording import gust_text, money, option_text
from ..words.quantities import System
from ..words.texts import say, template
from .figures import finite
from .readout import CurvePoint, CurveReport, SensitivityInput, SensitivityReport

_MOVES = 0.5  # m/s: an input that moves a limit gust by less is not listed


def sensitivity_report(site: Site, structure: Structure, system: System) -> SensitivityReport:
    """Return the inputs that move the limit gust at all, the most first, in words."""
    evaluated = representative(site, structure)
    moving = [
        each for each in sensitivity(evaluated.site, evaluated.structure) if abs(each[2] - each[1]) >= _MOVES
    ]
    inputs = tuple(
        SensitivityInput(
            name=row.name,
            low_text=gust_text(low, system),
            high_text=gust_text(high, system),
            range=finite(abs(high - low)),
            certainty=row.certainty,
        )
        for row, low, high in moving
    )
    return SensitivityReport(inputs=inputs, said=evaluated.said(system))


def curve_report(site: Site, structure: Structure, option: str, system: System) -> CurveReport:
    """Return what one option moves, in words: the limit gust and the cost over its range.

    Raises:
        InvalidPlan: The family has no such option.
    """
    evaluated = Representative(site, structure) if option in WHOLE else representative(site, structure)
    drawn, asked = (
        curve(evaluated.site, evaluated.structure, option),
        design_of(site, structure).required_gust,
    )
    options = family_of(structure.family).options
    extra = extra_of(options, option)
    points = tuple(
        CurvePoint(
            value=value,
            text=option_text(value, extra, system),
            limit=finite(float(limit), GREATEST_GUST),
            limit_text=gust_text(float(limit), system),
            cost=round(cost / evaluated.share, 2),
            cost_text=money(cost / evaluated.share, site.garden.currency),
            governs=template(f"link.{first}"),
            holds=bool(limit >= asked),
        )
        for value, limit, cost, first in zip(
            drawn.values, drawn.limits, drawn.costs, drawn.first, strict=True
        )
    )
    best = max(points, key=lambda point: point.limit)
    now = points[drawn.present]
    words = {"now": now.text, "gust": now.limit_text, "best": best.text, "most": best.limit_text}
    moves = best.limit > now.limit + 0.3
    return CurveReport(
        option=option,
        label=template(f"option.{option}"),
        ordered=extra["kind"] not in ("item", "choice"),
        points=points,
        present=drawn.present,
        required_gust=asked,
        says=" ".join(
            filter(
                None,
                (say("curve.moves" if moves else "curve.best", system, words=words), evaluated.said(system)),
            )
        ),
    )
