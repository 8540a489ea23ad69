"""The building of a structure in words: before, stake-out, steps, taking down, and how it stands as built."""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass

from .. import tables
from ..analysis.design import Design
from ..building.asbuilt import AsBuiltCheck, as_built, being_built, differing, other
from ..building.before import (
    BOARD,
    Near,
    Relocation,
    buried_near,
    driven,
    in_board,
    in_the_way,
    to_ask,
    ways_clear,
)
from ..building.stake_sheet import stake_sheet
from ..building.stakeout import Corner, StakeOut, Stakeout, Tape, stake_out
from ..building.work import Used, WorkStep, taking_down, work_of
from ..buying.work import tools_of
from ..drawing.joints import joint_sheet
from ..drawing.paper import Paper
from ..drawing.sheet import Dot, Flat, Line
from ..drawing.views import VIEWS, view_of
from ..families import family_of
from ..family.options import extra_of, in_use
from ..files.typefaces import undrawn
from ..ground.clashes import warned
from ..ground.plot import Laid, structure_frame
from ..plan.bed import Bed
from ..plan.fields import Typed
from ..plan.garden import Garden
from ..plan.record import Differs, Record
from ..plan.structure import AsBuilt, Structure
from ..site import Site
from ..sizing.fixes import fixes_for
from ..tables.rows import Post
from ..wording import gust_text, option_text, time_text
from ..words.quantities import System, with_sizes, write
from ..words.texts import say, template
from .build_readout import (
    BeforeLine,
    BeforeReport,
    BuildReport,
    ClearWay,
    CornerReport,
    DiffersReport,
    DownReport,
    JoinedReport,
    JointReport,
    JointStrokeMark,
    MarkReport,
    MayDiffer,
    StakeReport,
    StepReport,
    StoodReport,
)
from .build_sheet import build_sheet
from .changes import differences
from .figures import capital
from .pulls import pulls_report
from .readout import FixReport
from .remarks import cautions_of, remark_reports
from .report import report_of
from .sizes import fix_report

_WINDS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")
_LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
_OF_ROLE = {"post": "P", "anchor": "A", "strut": "S", "arm": "H", "ring": "C"}
_SERVICES = "services"
_NEAR_TOLD = 6
_FIXES = 4
_GEAR = {  # what is worn, by what is done; source handbook-parts-7
    "driving": ("gloves", "ear protection", "eye protection"),
    "cut-ends": ("leather gloves", "goggles"),
    "strainers": ("gloves", "goggles"),
    "spring": ("leather gloves", "goggles"),
    "hoop-spring": ("gloves", "goggles"),
    "concrete": ("rubber gloves", "goggles"),
    "poles-eyes": ("eye protection",),
    "shared-wall": ("goggles",),
}


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
        before=_before(laid, garden, near, work, names, _warned(check.planned, system), system),
        stake=_stake(staked, near, names, laid, system),
        joined=_joined(structure, record),
        steps=tuple(_step(each, keys, options, names, record, bed, system) for each in work),
        down=tuple(
            DownReport(
                key=each.key,
                title=_title(each),
                undo=each.row.undo or "",
                springs=each.row.springs or "",
                people=each.people,
            )
            for each in taking_down(work)
        ),
        stood=_stood(check, names, record, system),
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
        staked = stake_out(laid, garden.beds, garden.features, _unsafe(near))
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
        stakes = stake_sheet(found.laid, found.staked, found.names, _letters(found.staked), system)
    return build_sheet(told, report, stakes, garden.name, system, on)


def _unsafe(near: Sequence[Near]) -> frozenset[str]:
    """Return the keys of what must not be driven where it is marked."""
    return frozenset(each.member.key for each in near if each.too_near)


def _letters(staked: StakeOut) -> dict[Corner, str]:
    return {corner: _LETTERS[i % len(_LETTERS)] for i, corner in enumerate(staked.corners)}


def fingerprint(structure: Structure) -> str:
    """Return eight letters that stand for what is built and where: another plan has others."""
    kept = structure.model_dump_json(exclude={"built", "taken", "name", "key"})
    return hashlib.sha256(kept.encode()).hexdigest()[:8].upper()


def kept_of(structure: Structure, on: dt.date) -> AsBuilt:
    """Return what is kept of a structure when building begins."""
    fields = structure.model_dump(exclude={"built", "name", "key"})
    return AsBuilt(on=on, **fields)


def names_of(staked: StakeOut) -> dict[str, str]:
    """Return what each marked member is called, by what it is and its place in its line: ‘P3’."""
    count: dict[str, int] = {}
    names: dict[str, str] = {}
    for mark in staked.marks:
        letter = _OF_ROLE.get(mark.member.role, "F")
        count[letter] = count.get(letter, 0) + 1
        names.setdefault(mark.member.key, f"{letter}{count[letter]}")
    return names


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


def _before(
    laid: Laid,
    garden: Garden,
    near: Sequence[Near],
    work: Sequence[WorkStep],
    names: Mapping[str, str],
    remarks: tuple[BeforeLine, ...],
    system: System,
) -> BeforeReport:
    lines = [_near_line(each, names, system) for each in near[:_NEAR_TOLD]]
    if any(each.too_near for each in near):
        lines.append(BeforeLine(text=template("before.dig-by-hand")))
    against = in_board(laid)
    if against:
        what = ", ".join(names.get(key, template("before.posts-own")) for key in against)
        values = {"keep": (BOARD, "length")}
        lines.append(BeforeLine(text=say("before.board", system, values, {"what": what}), wrong=True))
    if not near and _in_earth(laid.bed):
        lines.append(BeforeLine(text=say("before.clear", system, words={"what": laid.structure.name})))
    deep = bool(driven(laid))
    if deep and _in_earth(laid.bed):
        lines.append(BeforeLine(text=template("before.unknown")))
    cautions = [caution for each in work for caution in each.row.cautions]
    left = [template("caution.judgement")]  # it stands at the end of the page
    if not _in_earth(laid.bed):
        left.append(template(f"caution.{_SERVICES}"))
    gear = dict.fromkeys(piece for caution in cautions for piece in _GEAR.get(caution, ()))
    minutes = sum(each.minutes for each in work)
    hands = sum(each.minutes * each.people for each in work)
    return BeforeReport(
        remarks=remarks,
        services=tuple(lines),
        ways=tuple(_way(way, laid, system) for way in ways_clear(laid, garden.features)),
        around=tuple(
            BeforeLine(text=told.text, wrong=told.level == "wrong")
            for told in warned(in_the_way(garden, laid), system)
        ),
        ask=tuple(
            say("before.ask", system, words={"what": feature.name})
            for feature in to_ask(laid, garden.features)
        ),
        soil=_soil(laid, deep, system),
        tools=tuple(dict.fromkeys(tool for each in work for tool in tools_of(each.step))),
        carry=tuple(_used(used, system) for used in _together(work)),
        gear=tuple(gear),
        people=max((each.people for each in work), default=1),
        clock=time_text(minutes),
        work=time_text(hands) if hands > minutes else "",
        cautions=tuple(
            text for text in cautions_of(laid.structure.family, laid.geometry) if text not in left
        ),
    )


def _in_earth(bed: Bed) -> bool:
    """Return whether the ground below a bed can be met by what is driven in it: a container has a floor."""
    return bed.kind != "container"


def _warned(e: Design, system: System) -> tuple[BeforeLine, ...]:
    """Return every remark of the bench that something does not do or wants watching, the worst first."""
    return tuple(
        BeforeLine(text=remark.text, wrong=remark.level == "wrong")
        for remark in remark_reports(e, system)
        if remark.level != "fine"
    )


def _near_line(near: Near, names: Mapping[str, str], system: System) -> BeforeLine:
    key = "near" if near.too_near else "near-shallow" if near.away < near.keep else "near-clear"
    values = {"away": (near.away, "length"), "keep": (near.keep, "length")}
    words = {"what": names.get(near.member.key, template("before.posts-own")), "line": near.feature.name}
    return BeforeLine(text=say(f"before.{key}", system, values, words), wrong=near.too_near)


def _way(way: Relocation, laid: Laid, system: System) -> ClearWay:
    structure = laid.structure
    values: dict[str, tuple[float, str]] = {
        "along": (way.along - structure.along, "length"),
        "across": (way.across - structure.across, "length"),
    }
    if way.key == "bays":
        values["spacing"] = (next(iter(way.options.values())), "length")
    if way.key == "shorter":
        values["less"] = (laid.geometry.length - way.options["length"], "length")
    return ClearWay(
        text=say(f"before.way-{way.key}", system, values),
        along=way.along,
        across=way.across,
        options=dict(way.options),
    )


def _soil(laid: Laid, deep: bool, system: System) -> str:
    if not (deep and _in_earth(laid.bed)):
        return template("before.soil-none")
    soil = tables.soils()[laid.bed.fill if laid.bed.raised_by > 0.3 else laid.bed.soil]
    hard = soil.hatch == "gravel" or soil.cu >= _HARD
    kind = "hard" if hard else "loose" if soil.anchor == "loose" else "moist"
    return say(f"before.soil-{kind}", system, words={"soil": capital(soil.name)})


_HARD = 70e3  # strength of a clay from which a post is not driven without a hole [Pa]


def _together(work: Sequence[WorkStep]) -> list[Used]:
    """Return everything that is used, alike together over all steps."""
    alike: dict[tuple[str, float], Used] = {}
    for used in (used for each in work for used in each.used):
        key = used.item.key, used.length
        count = alike[key].count if key in alike else 0
        alike[key] = Used(used.item, count + used.count, used.length, used.use)
    return list(alike.values())


def _used(used: Used, system: System) -> str:
    name = with_sizes(used.item.name, system)
    # a post that is sold in one length has it in its name
    named = isinstance(used.item, Post) and used.item.lengths_m == (used.length,)
    long = f" of {write(used.length, 'length', system)}" if used.length and not named else ""
    return f"{used.count} × {name}{long}"


def _stake(
    staked: StakeOut, near: Sequence[Near], names: Mapping[str, str], laid: Laid, system: System
) -> StakeReport:
    letters = _letters(staked)
    unsafe = _unsafe(near)

    def length(value: float) -> str:
        return write(value, "length", system)

    def tapes_of(tapes: Sequence[Tape]) -> str:
        return " and ".join(f"{letters[tape.corner]} {length(tape.length)}" for tape in tapes)

    def place(mark: Stakeout) -> MarkReport:
        peg = ""
        if mark.member.key in unsafe:
            peg = (
                say(f"stake.peg-{mark.peg.way}", system, {"off": (mark.peg.off, "length")})
                if mark.peg
                else template("stake.peg-none")
            )
        return MarkReport(
            name=names[mark.member.key],
            member=mark.member.key,
            what=template(f"part.{mark.member.role}"),
            tapes=tapes_of(mark.tapes),
            running=length(mark.running) if mark.line >= 0 else "",
            peg=peg,
            at=mark.at,
        )

    by_key = {mark.member.key: mark for mark in staked.marks}
    lines = []
    for line in staked.lines:
        if len(line) < 2:
            continue
        start = by_key[line[0]].at
        away = [
            ((by_key[k].at[0] - start[0]) ** 2 + (by_key[k].at[1] - start[1]) ** 2) ** 0.5 for k in line[1:]
        ]
        places = ", ".join(f"{names[k]} {length(d)}" for k, d in zip(line[1:], away, strict=True))
        lines.append(say("stake.running", system, words={"first": names[line[0]], "places": places}))
    squares = [
        say(
            "stake.diagonal",
            system,
            {"length": (each.length, "length"), "within": (each.within, "length")},
            {letter: names[key] for letter, key in zip("abcd", each.members, strict=True)},
        )
        for each in staked.diagonals
    ]
    squares += [
        say("stake.gauge", system, {"between": (each.between, "length"), "clear": (each.clear, "length")})
        for each in staked.gauges
        if each.clear > 0.1
    ]
    squares += [
        say(
            "stake.centre" if each.tapes else "stake.centre-alone",
            system,
            {"radius": (each.radius, "length")},
            {"tapes": tapes_of(each.tapes)},
        )
        for each in staked.centres
    ]
    return StakeReport(
        corners=tuple(
            CornerReport(letter=letters[corner], text=_corner(corner), at=corner.at)
            for corner in staked.corners
        ),
        marks=tuple(place(mark) for mark in staked.marks),
        lines=tuple(lines),
        squares=tuple(squares),
        edge=_edge(staked, laid, system),
    )


def _corner(corner: Corner) -> str:
    kind = {"bed": "corner", "wall": "end", "fence": "end"}.get(corner.kind, "lone")
    way = _WINDS[round(corner.bearing / 45.0) % 8]
    return capital(template(f"stake.{kind}").format(way=way, name=corner.of))


def _edge(staked: StakeOut, laid: Laid, system: System) -> str:
    if staked.edge is None:
        return ""
    first, last = staked.edge
    values = {"inside": (abs(first), "length"), "first": (first, "length"), "last": (last, "length")}
    key = "edge-askew" if abs(first - last) > 0.02 else "edge" if first >= 0 else "edge-out"
    return say(f"stake.{key}", system, values, {"bed": laid.bed.name})


def _joined(structure: Structure, record: Record | None) -> JoinedReport | None:
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


def _title(work: WorkStep) -> str:
    return work.row.title.format(**{"what": "the parts", **work.step.words})


def _step(
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
        title=_title(work),
        do=work.row.do,
        check=work.row.check or "",
        hits=tuple(
            say(f"hit.{hit.key}", system, {"value": hit.value, "within": (hit.within, hit.value[1])})
            for hit in work.step.hits
        ),
        joint=_joint(work.joint) if work.joint else None,
        uses=tuple(_used(used, system) for used in work.used),
        tools=tuple(tools_of(work.step)),
        people=work.people,
        minutes=work.minutes,
        time=time_text(work.minutes) if work.minutes else "",
        caution=" ".join(
            template(f"caution.{key}") for key in work.row.cautions if key != _SERVICES or _in_earth(bed)
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


def _stood(
    check: AsBuiltCheck, names: Mapping[str, str], record: Record | None, system: System
) -> StoodReport:
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
