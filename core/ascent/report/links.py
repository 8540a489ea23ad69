"""Links of the load path: what each is, carries and bears, with the working."""

from __future__ import annotations

import math

import numpy as np

from .. import tables
from ..analysis.crossings import at
from ..analysis.design import Design, state_of
from ..drawing.views import VIEWS, project
from ..path.loadpath import Arrow, Check, Link
from ..wording import gust_text, return_period_range, seasons_text
from ..words.quantities import System, with_sizes, write
from ..words.texts import has, say, template
from .figures import finite, grid_week
from .readout import ArrowMark, LinkReport, Working

_SEEN = 0.2  # of an arrow, below which a view does not draw it


def link_report(e: Design, link: Link, week: int, system: System) -> LinkReport:
    """Return one link of the load path in words, with its workings in a week."""
    weeks = e.season.weeks
    use = np.broadcast_to(link.utilisation, np.broadcast_shapes(link.utilisation.shape, (1, weeks, 3)))[
        0, :, 2
    ]
    limit = float(e.limits[link.key][0, week])
    carries = at(link.carries, 0, week, 2)
    worst, often = (
        max(link.checks, key=lambda check: at(check.utilisation, 0, week, 2)),
        e.reliability.return_period(link.key),
    )
    return LinkReport(
        key=link.key,
        title=template(f"link.{link.key}"),
        item=with_sizes(tables.item(*link.item).name, system) if link.item else _ground_name(e),
        members=link.members,
        hands_to=link.hands_to,
        carries=finite(carries, 1e6),
        carries_text=write(carries, "force", system),
        utilisation=tuple(finite(float(u)) for u in use),
        limit=tuple(grid_week(e.limits[link.key], 0, weeks)),
        limit_text=gust_text(limit, system),
        states=tuple(state_of(float(u), e.reliability.of(link.key)) for u in use),
        probability=round(e.reliability.of(link.key), 4),
        return_period_text=seasons_text(often[0]),
        return_period_range=return_period_range(*often[1:]),
        certainty=worst.certainty,
        workings=tuple(
            _working(check, week, system)
            for check in sorted(link.checks, key=lambda c: -at(c.utilisation, 0, week, 2))
        ),
        arrows=tuple(mark for arrow in link.arrows for mark in _arrow(arrow)),
    )


def _arrow(arrow: Arrow) -> list[ArrowMark]:
    """Return an arrow in each view that sees its direction."""
    x, y, z = arrow.towards
    size = math.sqrt(x * x + y * y + z * z)
    ways = {name: project(name, (x / size, y / size, z / size)) for name in VIEWS}
    return [
        ArrowMark(view=name, at=project(name, arrow.at), towards=way)
        for name, way in ways.items()
        if math.hypot(*way) > _SEEN
    ]


def _ground_name(e: Design) -> str:
    return tables.soils()[e.site.bed.soil].name


def _working(check: Check, week: int, system: System) -> Working:
    values = {name: (at(value, 0, week, 2), kind) for name, (value, kind) in check.terms.items()}
    values["allowed"] = (at(check.allowable, 0, week, 2), check.quantity)
    values["median"] = (at(check.median, 0, week, 2), check.quantity)
    expected = at(check.demand if check.expected is None else check.expected, 0, week, 2)
    source = tables.sources()[check.source]
    compare = f"check.{check.key}.compare"
    return Working(
        title=template(f"check.{check.key}.title"),
        words=template(f"check.{check.key}.words"),
        formula=template(f"check.{check.key}.formula"),
        numbers=say(f"check.{check.key}.numbers", system, values),
        expects=say(
            "working.median", system, {"median": values["median"], "expected": (expected, check.quantity)}
        ),
        compare=say(compare, system, values) if has(compare) else "",
        utilisation=finite(at(check.utilisation, 0, week, 2)),
        source=f"{source.title}, {source.where}"
        + ("" if source.checked == "read" else f" ({source.checked})"),
        certainty=check.certainty,
    )
