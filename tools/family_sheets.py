"""Keep the generated parts of docs/families/ current: each family's drawing and what its links cite, from the
demo.

Run by ./ascent fix; a test fails while a sheet is stale.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np
from ascent import tables
from ascent.analysis.crossings import at
from ascent.analysis.design import design_of
from ascent.drawing.views_sheet import views_sheet
from ascent.families import FAMILIES
from ascent.files.plan import read_plan
from ascent.files.svg import sheet_svg
from ascent.mechanics import Array
from ascent.plan.bed import Bed
from ascent.plan.garden import Garden
from ascent.plan.structure import Structure
from ascent.report.report import full_report
from ascent.site import Site
from ascent.wording import speed_text
from ascent.words.quantities import write
from ascent.words.texts import template

ROOT = Path(__file__).resolve().parent.parent
FOLDER = ROOT / "docs" / "families"
OPENS, CLOSES = "<!-- made by tools/family_sheets.py -->", "<!-- end of it -->"


def shown(garden: Garden) -> dict[str, tuple[Bed, Structure]]:
    """Return the first structure of each family in a garden, with its bed."""
    examples: dict[str, tuple[Bed, Structure]] = {}
    for bed in garden.beds:
        for structure in bed.structures:
            examples.setdefault(structure.family, (bed, structure))
    return examples


def picture(garden: Garden, bed: Bed, structure: Structure) -> str:
    """Return a structure's drawing as an SVG file."""
    report = full_report(Site(garden=garden, bed=bed), structure, "metric")
    return sheet_svg(views_sheet(report.views, f"{structure.name}, {bed.name}", "metric"))


def _number(value: Array | float, kind: str, week: int) -> str:
    """Return a demand or a strength in the gust asked in that week."""
    return write(at(np.asarray(value), 0, week, 2), kind, "metric")


def block(garden: Garden, bed: Bed, structure: Structure) -> str:
    """Return the generated block of a sheet: picture, load path as it stands, sources."""
    evaluation, what = (
        design_of(Site(garden=garden, bed=bed), structure),
        template(f"family.{structure.family}.what"),
    )
    lines = [
        OPENS,
        f"![{structure.name} of the demo, from the side, the end and above]({structure.family}.svg)",
        "",
    ]
    lines += [f"*{structure.name}*, {bed.name}: {what[0].lower()}{what[1:]}", ""]
    week = evaluation.worst_week
    lines += [
        f"In {evaluation.season.label(week)}, moist soil, "
        f"at the {speed_text(evaluation.required_gust, 'metric')} needed of it:",
        "",
        "| link | hands to | fails by | demand | allowed | expected to bear | source |",
        "| --- | --- | --- | --- | --- | --- | --- |",
    ]
    for link in evaluation.links:
        for check in link.checks:
            source = tables.sources()[check.source]
            to = ", ".join(template(f"link.{key}").lower() for key in link.hands_to) or "the ground"
            says = template(f"check.{check.key}.title").lower()
            numbers = " | ".join(
                _number(value, check.quantity, week)
                for value in (check.demand, check.allowable, check.median)
            )
            lines.append(
                f"| {template(f'link.{link.key}').lower()} | {to} | {says} | {numbers} |"
                f" {source.title}, {source.where} ({check.certainty}) |"
            )
    return "\n".join([*lines, CLOSES])


def sheets() -> dict[Path, str]:
    """Return every generated file with what should stand in it."""
    garden = read_plan((ROOT / "docs" / "examples" / "lantern-quay.json").read_bytes()).garden
    pages: dict[Path, str] = {}
    for key, (bed, structure) in shown(garden).items():
        pages[FOLDER / f"{key}.svg"] = picture(garden, bed, structure)
        page = (FOLDER / f"{key}.md").read_text(encoding="utf-8")
        made = block(garden, bed, structure)
        if OPENS in page:
            before, rest = page.split(OPENS, 1)
            page = before + made + rest.split(CLOSES, 1)[1]
        else:
            title, rest = page.split("\n", 1)
            page = f"{title}\n\n{made}\n{rest}"
        pages[FOLDER / f"{key}.md"] = page
    return pages


def main() -> None:
    """Write what is stale; with --check only say so."""
    stale = [
        path
        for path, text in sheets().items()
        if not path.exists() or path.read_text(encoding="utf-8") != text
    ]
    if "--check" in sys.argv:
        if stale:
            raise SystemExit(f"stale, run ./ascent fix: {', '.join(path.name for path in stale)}")
        return
    for path, text in sheets().items():
        path.write_text(text, encoding="utf-8")
    print(f"{len(FAMILIES)} family sheets, {len(stale)} renewed")


if __name__ == "__main__":
    main()
