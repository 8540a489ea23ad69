"""The plan and the views as SVG files: black lines on white, in real proportion, readable in any drawing
program.
"""

from __future__ import annotations

import math
import xml.etree.ElementTree as ET  # only written here, never parsed
from collections.abc import Sequence

from ..drawing.views import View
from ..ground.plot import Flat, PlotDrawing
from ..words.quantities import System, to_si, write

_PER_METRE = 100.0  # user units
_EDGE = 0.8  # of paper round a drawing [m]
_TEXT = 0.16  # least height of a letter [m]
_INK = {"wood": "#7a5a2f", "cane": "#8a7030", "metal": "#3c4c57", "soil": "#8a7256"}
_LEAF = "#3d6b30"
_DASH = {"drip-line": "2 10", "water-pipe": "30 8 6 8", "cable": "18 10"}


class _Paper:
    """An SVG document in metres, y up."""

    def __init__(self, low: Flat, high: Flat, title: str) -> None:
        self.low, self.high = (low[0] - _EDGE, low[1] - _EDGE), (high[0] + _EDGE, high[1] + _EDGE)
        width, height = (self.high[0] - self.low[0]) * _PER_METRE, (self.high[1] - self.low[1]) * _PER_METRE
        self.letter = max(_TEXT, (self.high[0] - self.low[0]) / 90)
        self.root = ET.Element(
            "svg",
            xmlns="http://www.w3.org/2000/svg",
            viewBox=f"0 0 {width:.1f} {height:.1f}",
            width=f"{width / 2:.0f}",
            height=f"{height / 2:.0f}",
        )
        ET.SubElement(self.root, "title").text = title
        ET.SubElement(self.root, "rect", width="100%", height="100%", fill="#ffffff")

    def at(self, point: Flat) -> tuple[float, float]:
        """Return a point of the drawing in user units."""
        return (point[0] - self.low[0]) * _PER_METRE, (self.high[1] - point[1]) * _PER_METRE

    def line(
        self,
        points: Sequence[Flat],
        colour: str = "#14212b",
        width: float = 0.02,
        fill: str = "none",
        dash: str = "",
        closed: bool = False,
    ) -> None:
        """Draw a line through points; its width in metres, at least a hair."""
        d = "".join(f"{'L' if i else 'M'}{x:.1f} {y:.1f}" for i, (x, y) in enumerate(map(self.at, points)))
        given = {
            "d": d + ("Z" if closed else ""),
            "fill": fill,
            "stroke": colour,
            "stroke-width": f"{max(width * _PER_METRE, 1.0):.1f}",
        }
        ET.SubElement(self.root, "path", {**given, **({"stroke-dasharray": dash} if dash else {})})

    def dot(self, point: Flat, radius: float, fill: str) -> None:
        """Draw a filled circle."""
        x, y = self.at(point)
        ET.SubElement(
            self.root,
            "circle",
            cx=f"{x:.1f}",
            cy=f"{y:.1f}",
            r=f"{max(radius * _PER_METRE, 1.5):.1f}",
            fill=fill,
        )

    def text(self, point: Flat, words: str, anchor: str = "middle") -> None:
        """Write words at a point."""
        x, y = self.at(point)
        given = {
            "x": f"{x:.1f}",
            "y": f"{y:.1f}",
            "text-anchor": anchor,
            "font-size": f"{self.letter * _PER_METRE:.1f}",
        }
        ET.SubElement(
            self.root, "text", {**given, "font-family": "Barlow, Arial, sans-serif", "fill": "#14212b"}
        ).text = words

    def written(self) -> str:
        """Return the document."""
        ET.indent(self.root, " ")
        return ET.tostring(self.root, encoding="unicode") + "\n"


def plan_svg(plot: PlotDrawing, title: str, system: System) -> str:
    """Return a garden's plan as an SVG document, north up, with a scale bar."""
    paper = _Paper(plot.low, plot.high, title)
    for feature in sorted(plot.features, key=lambda f: f.kind != "path"):
        if feature.round:
            paper.dot(feature.points[0], feature.width / 2, "#3c4c57")
        else:
            colour = {"path": "#dfe5e8", "wall": "#8c9aa1", "fence": "#7a5a2f"}.get(feature.kind, "#3a7c9f")
            paper.line(feature.points, colour, feature.width, dash=_DASH.get(feature.kind, ""))
        paper.text(_along(feature.points), feature.name)
    for bed in plot.beds:
        paper.line(
            bed.outline, "#7a5a2f" if bed.board else "#8a7256", max(bed.board, 0.01), "#f1ebe2", closed=True
        )
        lowest = min(y for _, y in bed.outline)
        paper.text((bed.middle[0], lowest - paper.letter * 1.1), bed.name)
    for structure in plot.structures:
        for stroke in structure.strokes:
            colour = _INK.get(stroke.stuff, "#14212b")
            if len(stroke.points) == 1:
                paper.dot(stroke.points[0], 0.04, colour)
            else:
                paper.line(stroke.points, colour, 0.02, dash="8 6" if stroke.role == "guy" else "")
        for plant in structure.plants:
            paper.dot(plant, 0.05, "#3d6b30")
        paper.text((structure.middle[0], structure.middle[1] + 0.12), structure.name)
    _scale_bar(paper, system)
    return paper.written()


def _along(points: Sequence[Flat]) -> Flat:
    (x0, y0), (x1, y1) = points[0], points[-1]
    return (x0 + 0.8 * (x1 - x0), y0 + 0.8 * (y1 - y0) + 0.06)


def _scale_bar(paper: _Paper, system: System) -> None:
    unit = to_si("metre" if system == "metric" else "foot")
    room = (paper.high[0] - paper.low[0]) / 4 / unit
    count = next((n for n in (50, 20, 10, 5, 2, 1) if n <= room), 1)
    x, y, long = paper.low[0] + 0.2, paper.low[1] + 0.2, count * unit
    paper.line(((x, y + 0.1), (x, y), (x + long, y), (x + long, y + 0.1)))
    paper.text((x + long + 0.1, y), f"{count} {'m' if system == 'metric' else 'ft'}", "start")
    north = (paper.high[0] - 0.3, paper.low[1] + 0.3)
    paper.line((north, (north[0], north[1] + 0.6), (north[0] - 0.1, north[1] + 0.4)))
    paper.line(((north[0], north[1] + 0.6), (north[0] + 0.1, north[1] + 0.4)))
    paper.text((north[0], north[1] - paper.letter), "N")


def views_svg(views: Sequence[View], title: str, system: System) -> str:
    """Return a structure from the side, from the end and from above on one sheet, with its measures."""
    named: dict[str, View] = {view.name: view for view in views}
    side, end, plan = named["elevation"], named["end"], named["plan"]
    gap = 1.2
    shift: dict[str, Flat] = {
        "elevation": (0.0, 0.0),
        "end": (side.high[0] + gap - end.low[0], 0.0),
        "plan": (0.0, side.low[1] - gap - plan.high[1]),
    }
    low = (min(side.low[0], plan.low[0]) - 0.6, shift["plan"][1] + plan.low[1])
    high = (shift["end"][0] + end.high[0], max(side.high[1], end.high[1]) + 0.6)
    paper = _Paper(low, high, title)
    for view in views:
        _view(paper, view, shift[view.name], system)
    paper.line(((low[0], 0.0), (high[0], 0.0)), width=0.025)
    for name, words in (("elevation", "from the side"), ("end", "from the end"), ("plan", "from above")):
        dx, dy = shift[name]
        view = named[name]
        paper.text((dx + view.low[0], dy + view.high[1] + 0.55), words, "start")
    return paper.written()


def _view(paper: _Paper, view: View, shift: Flat, system: System) -> None:
    def moved(points: Sequence[Flat]) -> list[Flat]:
        return [(x + shift[0], y + shift[1]) for x, y in points]

    (x0, y0), (x1, y1) = moved(view.bed)
    if view.name == "plan":
        paper.line(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), "#8a7256", fill="#f1ebe2", closed=True)
    for mark in view.marks:
        if mark.role == "grip":
            continue
        points, colour = moved(mark.points), _INK.get(mark.stuff, "#14212b")
        if mark.shape == "point":
            paper.dot(points[0], 0.015, colour)
        elif mark.shape == "panel":
            paper.line(points, colour, 0.004, closed=True)
            for wire in _wires(mark.points, mark.grid):
                paper.line(moved(wire), colour, 0.003)
        elif mark.shape == "wires":
            for line in mark.lines:
                paper.line(moved(line), colour, max(mark.thickness, 0.004))
        else:
            paper.line(points, colour, max(mark.thickness, 0.006))
    for plant in view.plants:
        if plant.way:
            paper.line(moved(plant.way), _LEAF, 0.012)
        paper.dot(moved((plant.at,))[0], 0.03, _LEAF)
    for measure in view.measures:
        start, end = moved((measure.start, measure.end))
        _measure(paper, start, end, write(measure.value, "length", system), measure.offset)


def _wires(points: Sequence[Flat], grid: Flat | None) -> list[tuple[Flat, Flat]]:
    """Return the wires of a panel of some grid."""
    if grid is None:
        return []
    (x0, z0), (x1, z1) = points[0], points[2]
    along = [x0 + i * grid[0] for i in range(1, min(math.ceil((x1 - x0) / grid[0]), 400))]
    up = [z0 + i * grid[1] for i in range(1, min(math.ceil((z1 - z0) / grid[1]), 400))]
    return [((x, z0), (x, z1)) for x in along] + [((x0, z), (x1, z)) for z in up]


def _measure(paper: _Paper, start: Flat, end: Flat, words: str, offset: float) -> None:
    upright = abs(start[0] - end[0]) < abs(start[1] - end[1])
    wide, tall = abs(start[0] - end[0]), abs(start[1] - end[1])
    away = 0.4 * offset / max(math.hypot(wide, tall), 1e-9)
    off = (away * tall, away * wide)
    a, b = (start[0] + off[0], start[1] + off[1]), (end[0] + off[0], end[1] + off[1])
    paper.line((start, a, b, end), width=0.006)
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    paper.text(
        (middle[0] + 0.05, middle[1]) if upright else (middle[0], middle[1] + 0.05),
        words,
        "start" if upright else "middle",
    )
