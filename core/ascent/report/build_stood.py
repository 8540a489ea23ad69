"""How a support stands as built, and what would help."""

from __future__ import annotations

from collections.abc import Mapping

from ..analysis.design import Design
from ..building.asbuilt import AsBuiltCheck, differing
from ..plan.record import Record
from ..sizing.fixes import fixes_for
from ..wording import gust_text
from ..words.quantities import System
from ..words.texts import say, template
from .build_readout import StoodReport
from .readout import FixReport
from .sizes import fix_report

_FIXES = 4


def stood_report(
    check: AsBuiltCheck, names: Mapping[str, str], record: Record | None, system: System
) -> StoodReport:
    """Return how a support stands as built, and what would help where it is too weak."""
    worst, planned = check.worst, check.planned
    whole, single = differing(record)
    if not whole and not single:
        return StoodReport(state=planned.state, text=template("built.as-planned"), like="", fixes=())
    words = {
        "state": template(f"state.{worst.state}"),
        "limit": _limit(worst, system),
        "planned": _limit(planned, system),
        "asked": gust_text(worst.required_gust, system),
    }
    like = [
        say("built.like", system, words={"members": ", ".join(names.get(key, key) for key in part.members)})
        for part in check.parts
    ]
    changed = {*whole, *(name for options in single.values() for name in options)}
    return StoodReport(
        state=worst.state,
        text=say("built.falls" if worst.state == "inadequate" else "built.still", system, words=words),
        like=" ".join(like),
        fixes=_fixes(worst, changed, system) if worst.state == "inadequate" else (),
    )


def _fixes(e: Design, fixed: set[str], system: System) -> tuple[FixReport, ...]:
    """Return what would still help what was built: nothing that has come out as it has."""
    found = [fix for fix in fixes_for(e, e.weakest(e.worst_week)) if fix.option not in fixed]
    enough = [fix for fix in found if fix.holds]
    best = sorted(enough or found, key=lambda fix: fix.cost if fix.holds else -fix.limit)
    return tuple(fix_report(e, fix, system) for fix in best[:_FIXES])


def _limit(e: Design, system: System) -> str:
    return gust_text(float(e.limit[0].min()), system)
