"""The steps of building in words, and what may differ in each."""

from __future__ import annotations

from collections.abc import Container, Mapping

from .. import tables
from ..building.asbuilt import other
from ..building.work import WorkStep
from ..buying.work import tools_of
from ..drawing.joints import joint_sheet
from ..drawing.sheet import Dot, Flat, Line
from ..families import family_of
from ..family.options import extra_of, in_use
from ..plan.bed import Bed
from ..plan.fields import Typed
from ..plan.record import Differs, Record
from ..plan.structure import Structure
from ..wording import option_text, time_text
from ..words.quantities import System, with_sizes
from ..words.texts import say, template
from .build_before import SERVICES, in_earth, used_words
from .build_readout import DiffersReport, JoinedReport, JointReport, JointStrokeMark, MayDiffer, StepReport

_SINGLE = (
    "depth",
    "end_depth",
    "in_soil",
    "ties_per_post",
    "post",
    "stake",
    "stake_depth",
    "push_in",
    "foot_depth",
)


def joined_report(structure: Structure, record: Record | None) -> JoinedReport | None:
    """Return where the support is joined, on the ground or in its place; nothing where that is not a
    choice.
    """
    joined = family_of(structure.family).joined
    if joined is None:
        return None
    joining = record.joining if record else "usual"
    ways = (joined.usual, "place" if joined.usual == "ground" else "ground")
    now, then = ways if joining == "usual" else ways[::-1]
    return JoinedReport(
        now=now,
        joining=other(joining),
        why=template(f"joined.{joined.key}.{now}"),
        other=then,
        other_why=template(f"joined.{joined.key}.{then}"),
    )


def _joint(key: str) -> JointReport:
    row = tables.joints()[key]
    strokes = []
    for layer in joint_sheet(key).layers:
        for mark in layer.marks:
            if isinstance(mark, Dot):
                wide, closed = 2 * mark.radius, False
                points: tuple[Flat, ...] = (mark.at,)
            elif isinstance(mark, Line):
                points, wide, closed = mark.points, mark.width, mark.closed
            else:
                continue
            strokes.append(JointStrokeMark(ink=mark.ink, wide=wide, closed=closed, points=points))
    return JointReport(key=key, name=row.name, how=row.how, strokes=tuple(strokes))


def step_title(work: WorkStep) -> str:
    """Return the title of a step, with its number where there are several alike."""
    return work.row.title.format(**{"what": "the parts", **work.step.words})


def step_report(
    work: WorkStep,
    steps: Container[str],
    options: Typed,
    names: Mapping[str, str],
    record: Record | None,
    bed: Bed,
    system: System,
) -> StepReport:
    """Return a step in words; what went in otherwise in a step that is no longer there is told in one that
    can tell it. `steps`: the keys of all.
    """
    return StepReport(
        key=work.key,
        title=step_title(work),
        do=work.row.do,
        check=work.row.check or "",
        hits=tuple(
            say(f"hit.{hit.key}", system, {"value": hit.value, "within": (hit.within, hit.value[1])})
            for hit in work.step.hits
        ),
        joint=_joint(work.joint) if work.joint else None,
        uses=tuple(used_words(used, system) for used in work.used),
        tools=tuple(tools_of(work.step)),
        people=work.people,
        minutes=work.minutes,
        time=time_text(work.minutes) if work.minutes else "",
        caution=" ".join(
            template(f"caution.{key}") for key in work.row.cautions if key != SERVICES or in_earth(bed)
        ),
        members=tuple(member.key for member in work.members),
        may_differ=tuple(
            _may_differ(name, work, options, names, system)
            for name in work.step.differs
            if in_use(options, name)
        ),
        differs=tuple(
            _differs(key, each, options, names, system)
            for key, each in (record.differs if record else {}).items()
            if each.step == work.key or (each.step not in steps and each.option in work.step.differs)
        ),
    )


def _may_differ(
    name: str, work: WorkStep, options: Typed, names: Mapping[str, str], system: System
) -> MayDiffer:
    extra = extra_of(options, name)
    members = [m for m in work.members if m.key in names] if name in _SINGLE else []
    return MayDiffer(
        option=name,
        label=template(f"option.{name}"),
        planned=option_text(getattr(options, name), extra, system),
        choices=_choices(options, name, system),
        members=tuple((member.key, names[member.key]) for member in members),
    )


def _choices(options: Typed, name: str, system: System) -> tuple[tuple[str, str], ...]:
    """Return what an option may be instead: rows that serve, or its named values."""
    extra = extra_of(options, name)
    if extra.get("kind") == "item":
        items = tables.ITEM_TABLES[str(extra["table"])]().values()
        role = str(extra.get("role") or "")
        return tuple(
            (item.key, with_sizes(item.name, system)) for item in items if not role or role in item.serves
        )
    values = type(options).model_json_schema()["properties"][name].get("enum", ())
    return tuple((str(value), option_text(value, extra, system)) for value in values)


def _differs(
    key: str, differs: Differs, options: Typed, names: Mapping[str, str], system: System
) -> DiffersReport:
    extra = extra_of(options, differs.option)
    planned = option_text(getattr(options, differs.option), extra, system)
    came = option_text(differs.value, extra, system)
    where = f"{names.get(differs.member, differs.member)}: " if differs.member else ""
    label = template(f"option.{differs.option}")
    return DiffersReport(
        key=key,
        option=differs.option,
        member=differs.member,
        text=f"{where}{label} {came} instead of {planned}",
        note=differs.note,
        value=differs.value,
    )
