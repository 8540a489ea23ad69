"""The core's own command line: check a plan without a server, print the plan file's schema."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence
from pathlib import Path

from . import tables
from .errors import AscentError
from .files.plan import plan_schema, read_plan
from .plan.model import Site
from .telling.moves import rests_on
from .telling.readout import Report, Rest
from .telling.report import full_report


def main(arguments: list[str] | None = None) -> int:
    """Run a command; return 0 when all holds or should stand, 1 when a link falls short, 2 when the plan is
    not valid.
    """
    parser = argparse.ArgumentParser(prog="ascent", description="Check a trellis plan.")
    commands = parser.add_subparsers(dest="command", required=True)
    check = commands.add_parser("check", help="report on every structure of a plan file")
    check.add_argument("plan", type=Path)
    check.add_argument("--json", action="store_true", help="print the whole report as JSON")
    commands.add_parser("schema", help="print the JSON Schema of the plan file")
    options = parser.parse_args(arguments)
    if options.command == "schema":
        print(json.dumps(plan_schema(), indent=1, sort_keys=True, ensure_ascii=False))
        return 0
    try:
        tables.load_all()
        return _check(options.plan, options.json)
    except OSError as error:
        print(f"{options.plan}: {error.strerror}", file=sys.stderr)
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
            full_report(Site(garden=garden, bed=bed), structure, garden.units),
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
            rests = rests_on(Site(garden=garden, bed=bed), structure, garden.units).rests
            print("\n".join(_lines(structure.name, bed.name, reports[structure.key][2], rests)))
    return int(any(report.headline.state == "short" for _, _, report in reports.values()))


def _lines(name: str, bed: str, report: Report, rests: Sequence[Rest]) -> list[str]:
    h = report.headline
    lines = [f"{name}, {bed}: {h.words} ({h.design_text} asked)", f"  {h.sentence}", f"  {h.once_said}"]
    lines.append(f"  After days of rain: {h.saturated_text}. By median strengths: {h.bare_text}.")
    lines += [
        f"  {'!' if link.key == h.weakest else ' '} {link.title:<24}{link.item:<36}use {max(link.use):5.2f}"
        f"   holds to {link.limit_text:<28}{link.once_text}"
        for link in report.links
    ]
    lines += [f"  {remark.level}: {remark.text}" for remark in report.remarks if remark.level != "fine"]
    lines.append(
        "  Rests most on: "
        + "; ".join(f"{rest.name}, {rest.low_text} to {rest.high_text} by {rest.certainty}" for rest in rests)
    )
    lines.append(f"  Parts: {report.cost_text}")
    return [*lines, ""]
