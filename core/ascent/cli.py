"""The core's own command line: check a plan without a server, print the plan file's schema."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import get_args

from . import tables
from .buying.shed import had_by, spare_of
from .errors import AscentError
from .files.need import need_schema, read_need
from .files.plan import plan_schema, read_plan, write_plan
from .plan.bed import Bed
from .plan.garden import Garden
from .plan.structure import Structure
from .report.choosing import choose
from .report.readout import Report, SensitivityInput, Sizing, SizingWanted
from .report.report import full_report
from .report.sensitivity import sensitivity_report
from .report.sizes import sizing
from .site import Site
from .sizing.size import Aim


def main(arguments: list[str] | None = None) -> int:
    """Run a command; return 0 when all holds or should stand, 1 when a link falls short or nothing will do, 2
    when what was given is not valid.
    """
    parser = argparse.ArgumentParser(prog="ascent", description="Check, size and choose trellises.")
    commands = parser.add_subparsers(dest="command", required=True)
    check = commands.add_parser("check", help="report on every structure of a plan file")
    check.add_argument("--json", action="store_true", help="print the whole report as JSON")
    schema = commands.add_parser("schema", help="print the JSON Schema of a plan or a need")
    schema.add_argument("--of", choices=("plan", "need"), default="plan")
    sizes = commands.add_parser("size", help="size every structure of a plan file for an aim")
    sizes.add_argument("file", type=Path)
    sizes.add_argument("--aim", choices=get_args(Aim), default="cheapest")
    sizes.add_argument("--budget", type=float, help="what each may cost")
    sizes.add_argument("--lock", action="append", default=[], metavar="OPTION", help="leave it as it is")
    sizes.add_argument("--json", action="store_true", help="print the changed plan")
    chooses = commands.add_parser("choose", help="compare every kind of support for a need")
    chooses.add_argument("file", type=Path)
    chooses.add_argument("--json", action="store_true", help="print everything as JSON")
    check.add_argument("file", type=Path)
    options = parser.parse_args(arguments)
    if options.command == "schema":
        found = plan_schema() if options.of == "plan" else need_schema()
        print(json.dumps(found, indent=1, sort_keys=True, ensure_ascii=False))
        return 0
    try:
        tables.load_all()
        if options.command == "check":
            return _check(options.file, options.json)
        if options.command == "size":
            return _size(options)
        return _choose(options.file, options.json)
    except OSError as error:
        print(f"{options.file}: {error.strerror}", file=sys.stderr)
    except AscentError as error:
        print(error, file=sys.stderr)
    return 2


def _check(path: Path, as_json: bool) -> int:
    garden = read_plan(path.read_bytes()).garden
    standing = [(bed, structure) for bed in garden.beds for structure in bed.structures]
    reports = {
        structure.key: (
            structure.name,
            bed.name,
            full_report(_where(garden, bed, structure), structure, garden.units),
        )
        for bed, structure in standing
    }
    if as_json:
        print(
            json.dumps(
                {key: report.model_dump(mode="json") for key, (_, _, report) in reports.items()},
                ensure_ascii=False,
            )
        )
    else:
        for bed, structure in standing:
            inputs = sensitivity_report(_where(garden, bed, structure), structure, garden.units).inputs
            print("\n".join(_lines(structure.name, bed.name, reports[structure.key][2], inputs)))
    return int(any(report.headline.state == "inadequate" for _, _, report in reports.values()))


def _where(garden: Garden, bed: Bed, structure: Structure) -> Site:
    """Return where a structure stands, with what it has of the shed."""
    return Site(garden=garden, bed=bed, spare=had_by(garden.stock, structure.taken))


def _lines(name: str, bed: str, report: Report, inputs: Sequence[SensitivityInput]) -> list[str]:
    h = report.headline
    lines = [
        f"{name}, {bed}: {h.words} ({h.required_text} asked)",
        f"  {h.sentence}",
        f"  {h.return_period_said}",
    ]
    lines.append(f"  After days of rain: {h.saturated_text}. By median strengths: {h.median_text}.")
    lines += [
        f"  {'!' if link.key == h.weakest else ' '} {link.title:<24}{link.item:<36}"
        f"use {max(link.utilisation):5.2f}"
        f"   holds to {link.limit_text:<28}{link.return_period_text}"
        for link in report.links
    ]
    lines += [f"  {remark.level}: {remark.text}" for remark in report.remarks if remark.level != "fine"]
    lines.append(
        "  SensitivityReport most on: "
        + "; ".join(
            f"{each.name}, {each.low_text} to {each.high_text} by {each.certainty}" for each in inputs
        )
    )
    lines.append(f"  Parts: {report.cost_text}")
    return [*lines, ""]


def _size(options: argparse.Namespace) -> int:
    garden = read_plan(options.file.read_bytes()).garden
    wanted = SizingWanted(aim=options.aim, budget=options.budget, locked=tuple(options.lock))
    beds, holds = [], True
    taken = {structure.key: structure for bed in garden.beds for structure in bed.structures}
    for bed in garden.beds:
        structures = []
        for structure in bed.structures:
            others = (other for key, other in taken.items() if key != structure.key)
            site = Site(garden=garden, bed=bed, spare=spare_of(garden.stock, others))
            found = sizing(site, structure, garden.units, wanted)
            holds = holds and found.holds
            changed = {**structure.options, **found.changes}
            sized = structure.model_copy(update={"options": changed, "taken": found.taken})
            taken[structure.key] = sized
            structures.append(sized)
            if not options.json:
                print("\n".join(_sized(structure.name, bed.name, found)))
        beds.append(bed.model_copy(update={"structures": tuple(structures)}))
    if options.json:
        print(write_plan(garden.model_copy(update={"beds": tuple(beds)})))
    return int(not holds)


def _sized(name: str, bed: str, found: Sizing) -> list[str]:
    verdict = "holds" if found.holds else "still short"
    return [
        f"{name}, {bed}: {found.limit_text}, {verdict}; {found.cost_text}",
        *(f"  {change.words} ({change.why}; {change.cost_text})" for change in found.words),
        *([f"  {found.stopped}"] if found.stopped else []),
        f"  {found.looked}",
        "",
    ]


def _choose(path: Path, as_json: bool) -> int:
    asked = read_need(path.read_bytes())
    ways, places = choose(asked)
    if as_json:
        found = {
            "ways": [way.model_dump(mode="json") for way in ways],
            "order": [place.model_dump(mode="json") for place in places],
        }
        print(json.dumps(found, ensure_ascii=False))
        return int(not places)
    known = {way.family: way for way in ways}
    for place in places:
        way = known[place.family]
        told = way.told
        print(
            f"{place.rank:2} {way.name:<28}{told.limit:>8} {told.yearly:>12} a season {told.cost:>12}"
            f"  {told.minutes:>6}  {told.once}"
        )
        print(f"   {' '.join(place.reasons)}")
    print("\nWill not do:")
    for way in ways:
        if way.against:
            print(f"   {way.name}: {' '.join(way.against)}")
    print(f"\n{sum(way.size for way in ways)} ways of building them looked through.")
    return int(not places)
