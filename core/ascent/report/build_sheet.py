"""The build sheet: everything of building a structure on paper, in the order it is needed."""

from __future__ import annotations

import datetime as dt

from ..drawing.joints import joint_sheet
from ..drawing.paper import Beside, Block, Drawing, Heading, Listed, Paper, PaperTable, Text
from ..drawing.sheet import Sheet
from ..drawing.views_sheet import Stage, views_sheet
from ..words.quantities import System
from ..words.texts import say, template
from .build_readout import BuildReport, StepReport
from .readout import CutReport, Report

_WIDE = 0.18  # of a page between its margins, of the narrower of the two forms [m]
_WHOLE, _STEP, _STAKE = 0.105, 0.062, 0.095  # how high drawings may be [m]
_JOINT = 0.028  # of a joint's drawing [m]
_LINE = "…………………………………………………………………………………………………"


def build_sheet(
    told: BuildReport, report: Report, stake: Sheet | None, garden: str, system: System, on: dt.date
) -> Paper:
    """Return the build sheet of a structure.

    Args:
        told: How it is built.
        report: Of the structure as it is built: its parts, cuts and how it stands.
        stake: Its stake-out drawn; nothing where nothing is marked.
        garden: The garden's name.
        system: The reader's units.
        on: The day it is printed.
    """
    blocks: list[Block] = [
        Heading(f"Build {told.name}", 1),
        Text(f"{told.family} on {told.bed}, {garden}. {report.headline.sentence} {_needs(report)}"),
        *([Text(told.stood.text, "strong" if told.stood.fixes else "plain")] if told.begun else []),
        Drawing(views_sheet(told.views, told.name, system, room=_WIDE / _WHOLE), _WHOLE),
        *_before(told),
        *_stake(told, stake),
        *_parts(told, report, system),
        Heading("Steps", fresh_page=True),
    ]
    standing: set[str] = set()
    for number, step in enumerate(told.steps, start=1):
        blocks += _step(number, step, told, frozenset(standing), system)
        standing.update(step.members)
    blocks.append(Heading("Taking down"))
    for down in told.down:
        blocks.append(Text(down.undo + (f" {down.people} people." if down.people > 1 else "")))
        if down.springs:
            blocks.append(Text(down.springs, "care"))
    blocks.append(Text(told.judgement, "quiet"))
    foot = f"{told.name} · plan {told.fingerprint} · {on.isoformat()}"
    return Paper(f"Build {told.name}", foot, tuple(blocks))


def _needs(report: Report) -> str:
    words = {"design": report.headline.required_text, "words": report.headline.words}
    return template("print.needs").format(**words)


def _before(told: BuildReport) -> list[Block]:
    before = told.before
    hands = "one person" if before.people == 1 else f"{before.people} people at some steps"
    work = f", {before.work} of work in all" if before.work else ""
    warned: list[Block] = [Text(line.text, "strong" if line.wrong else "plain") for line in before.remarks]
    return [
        *([Heading("Check this design first"), *warned] if warned else []),
        Heading("Before you dig"),
        *(Text(line.text, "strong" if line.wrong else "plain") for line in before.services),
        *(Text(line.text, "strong" if line.wrong else "plain") for line in before.around),
        *(Text(text) for text in before.ask),
        Text(before.soil),
        Text(f"{before.clock} by the clock, {hands}{work}."),
        Text("Tools: " + ", ".join(before.tools) + "."),
        *([Text("On you: " + ", ".join(before.gear) + ".")] if before.gear else []),
        Heading("Take care", 3),
        Listed(before.cautions),
    ]


def _stake(told: BuildReport, drawn: Sheet | None) -> list[Block]:
    stake = told.stake
    if drawn is None:
        return []
    rows = tuple(
        (f"{mark.name} {mark.what}", mark.tapes + (f". {mark.peg}" if mark.peg else ""), mark.running)
        for mark in stake.marks
    )
    return [
        Heading("Stake-out", fresh_page=True),
        Drawing(drawn, _STAKE),
        Listed(tuple(f"{corner.letter}: {corner.text}" for corner in stake.corners)),
        PaperTable(("place", "where the two tapes meet", "along its line"), rows, (0.22, 0.56, 0.22)),
        *([Text(stake.edge)] if stake.edge else []),
        *(Text(line) for line in stake.lines),
        Listed(stake.squares, boxes=True),
    ]


def _parts(told: BuildReport, report: Report, system: System) -> list[Block]:
    rows = tuple((part.name, part.use, str(part.count), part.buy) for part in report.parts)
    blocks: list[Block] = [
        Heading("Parts", fresh_page=True),
        Listed(tuple(told.before.carry), boxes=True),
        PaperTable(("part", "for", "needed", "to buy or fetch"), rows, (0.4, 0.2, 0.12, 0.28)),
        Text(say("costs.parts", system, words={"cost": report.cost_text})),
    ]
    if report.cuts:
        blocks.append(Heading("Cuts", 3))
        blocks += [Text(_cut(cut)) for cut in report.cuts]
    return blocks


def _cut(cut: CutReport) -> str:
    lengths = " + ".join(text for _, text in cut.cuts)
    return f"{cut.bars} × {cut.name} of {cut.length_text}: {lengths}; {cut.rest_text} left."


def _step(
    number: int, step: StepReport, told: BuildReport, standing: frozenset[str], system: System
) -> list[Block]:
    hands = f", {step.people} people" if step.people > 1 else ""
    time = f" ({step.time}{hands})" if step.time else ""
    blocks: list[Block] = [Heading(f"{number}. {step.title}{time}", 3)]
    if step.members:
        stage = Stage(standing, frozenset(step.members))
        blocks.append(Drawing(views_sheet(told.views, step.title, system, stage, _WIDE / _STEP), _STEP))
    blocks.append(Text(step.do))
    if step.caution:
        blocks.append(Text(step.caution, "care"))
    if step.uses:
        blocks.append(Text("With " + ", ".join(step.uses) + "."))
    if step.hits:
        blocks.append(Listed(step.hits, boxes=True))
    if step.joint:
        joint = step.joint
        blocks.append(Beside(joint_sheet(joint.key), _JOINT, joint.name, joint.how))
    blocks.append(Listed((f"Done. {step.check}", f"Differs from the design: {_LINE}"), boxes=True))
    blocks += [Text(f"As it went in: {each.text}.", "strong") for each in step.differs]
    return blocks
