"""The building of a structure in words: before, stake-out, steps, taking down, and how it stands as built."""

from __future__ import annotations

import datetime as dt
import hashlib
from dataclasses import dataclass

from ..building.asbuilt import AsBuiltCheck, as_built, being_built
from ..building.before import Near, buried_near
from ..building.stake_sheet import stake_sheet
from ..building.stakeout import StakeOut, stake_out
from ..building.work import WorkStep, taking_down, work_of
from ..drawing.paper import Paper
from ..drawing.views import VIEWS, view_of
from ..files.typefaces import undrawn
from ..ground.plot import Laid, structure_frame
from ..plan.bed import Bed
from ..plan.garden import Garden
from ..plan.record import Record
from ..plan.structure import Structure
from ..site import Site
from ..words.quantities import System, write
from ..words.texts import say, template
from .build_before import before_report, unsafe_members, warnings_of
from .build_readout import BuildReport, DownReport
from .build_sheet import build_sheet
from .build_stake import corner_letters, names_of, stake_report
from .build_steps import joined_report, step_report, step_title
from .build_stood import stood_report
from .changes import differences
from .pulls import pulls_report
from .report import report_of


def build_report(
    garden: Garden, bed: Bed, structure: Structure, record: Record | None, system: System
) -> BuildReport:
    """Return how a structure is built, in words.

    Args:
        garden: The garden, with its beds and what else is on its plan.
        bed: The bed it stands on.
        structure: The structure, with what was kept of it when building began.
        record: What was done of it.
        system: The reader's units.

    Raises:
        InvalidPlan: What is written of it as built is not allowed.
    """
    return _told(garden, bed, structure, record, _Work.of(garden, bed, structure, record), system)


def _told(
    garden: Garden, bed: Bed, structure: Structure, record: Record | None, found: _Work, system: System
) -> BuildReport:
    building, check, laid = found.building, found.check, found.laid
    work, near, staked, names = found.steps, found.near, found.staked, found.names
    geometry = check.planned.geometry
    options = check.planned.options
    keys = {each.key for each in work}

    def length(value: float) -> str:
        return write(value, "length", system)

    return BuildReport(
        name=structure.name,
        unprinted=_unprinted(garden, bed, structure),
        family=template(f"family.{structure.family}.name"),
        bed=bed.name,
        fingerprint=fingerprint(building),
        begun=record.begun if record else None,
        plan_changed=_plan_changed(structure, system),
        before=before_report(laid, garden, near, work, names, warnings_of(check.planned, system), system),
        stake=stake_report(staked, near, names, laid, system),
        joined=joined_report(structure, record),
        steps=tuple(step_report(each, keys, options, names, record, bed, system) for each in work),
        down=tuple(
            DownReport(
                key=each.key,
                title=step_title(each),
                undo=each.row.undo or "",
                springs=each.row.springs or "",
                people=each.people,
            )
            for each in taking_down(work)
        ),
        stood=stood_report(check, names, record, system),
        pulls=pulls_report(Site(garden=garden, bed=bed), building, record, names, system),
        views=tuple(view_of(geometry, bed, name, system) for name in VIEWS),
        judgement=template("caution.judgement"),
    )


@dataclass(frozen=True)
class _Work:
    """A structure with everything of building it worked out."""

    building: Structure
    check: AsBuiltCheck
    laid: Laid
    steps: tuple[WorkStep, ...]
    near: tuple[Near, ...]
    staked: StakeOut
    names: dict[str, str]

    @classmethod
    def of(cls, garden: Garden, bed: Bed, structure: Structure, record: Record | None) -> _Work:
        site = Site(garden=garden, bed=bed)
        building = being_built(structure)
        check = as_built(site, structure, record)
        geometry = check.planned.geometry
        laid = Laid(building, bed, geometry, structure_frame(bed, building, geometry.length))
        steps = work_of(site, building, geometry, record.joining if record else "usual")
        near = buried_near(laid, garden.features)
        staked = stake_out(laid, garden.beds, garden.features, unsafe_members(near))
        return cls(building, check, laid, steps, near, staked, names_of(staked))


def paper_of(
    garden: Garden, bed: Bed, structure: Structure, record: Record | None, system: System, on: dt.date
) -> Paper:
    """Return the build sheet of a structure, as it is printed on a day.

    Raises:
        InvalidPlan: What is written of it as built is not allowed.
    """
    found = _Work.of(garden, bed, structure, record)
    told = _told(garden, bed, structure, record, found, system)
    report = report_of(found.check.planned, system)
    stakes = None
    if found.staked.marks:
        stakes = stake_sheet(found.laid, found.staked, found.names, corner_letters(found.staked), system)
    return build_sheet(told, report, stakes, garden.name, system, on)


def fingerprint(structure: Structure) -> str:
    """Return eight letters that stand for what is built and where: another plan has others."""
    kept = structure.model_dump_json(exclude={"built", "taken", "name", "key"})
    return hashlib.sha256(kept.encode()).hexdigest()[:8].upper()


def _unprinted(garden: Garden, bed: Bed, structure: Structure) -> str:
    """Return a warning of the letters in names that no typeface draws on paper, nothing where all are."""
    names = [garden.name, bed.name, structure.name, *(each.name for each in garden.features)]
    missing = undrawn(" ".join(names))
    return say("print.undrawn", "metric", {}, {"letters": missing}) if missing else ""


def _plan_changed(structure: Structure, system: System) -> str:
    if structure.built is None:
        return ""
    changed = differences(being_built(structure), structure, system)
    if not changed:
        return ""
    said = ", ".join(f"{each.label} {each.before} → {each.after}" for each in changed[:3])
    return f"{template('built.changed')} {said}."
