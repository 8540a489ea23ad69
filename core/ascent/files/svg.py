"""A sheet as an SVG file: black lines on white, in real proportion, readable in any drawing program."""

from __future__ import annotations

import xml.etree.ElementTree as ET  # only written here, never parsed

from ..drawing.sheet import Dot, Flat, Ink, Layer, Line, Sheet, Span, Words

_PER_METRE = 100.0  # user units
_HAIR = 1.0  # least width of a line, in user units
COLOURS: dict[Ink, str] = {
    "ink": "#14212b",
    "wood": "#7a5a2f",
    "cane": "#8a7030",
    "metal": "#3c4c57",
    "soil": "#8a7256",
    "leaf": "#3d6b30",
    "path": "#dfe5e8",
    "wall": "#8c9aa1",
    "water": "#3a7c9f",
    "bed": "#f1ebe2",
    "pale": "#b9c4ca",
}


def sheet_svg(sheet: Sheet) -> str:
    """Return a sheet as an SVG document, each layer a group."""
    return _Paper(sheet).written()


class _Paper:
    """An SVG document; y is up in metres, down in user units."""

    def __init__(self, sheet: Sheet) -> None:
        self.sheet = sheet
        width, height = ((sheet.high[axis] - sheet.low[axis]) * _PER_METRE for axis in (0, 1))
        self.root = ET.Element(
            "svg",
            xmlns="http://www.w3.org/2000/svg",
            viewBox=f"0 0 {width:.1f} {height:.1f}",
            width=f"{width / 2:.0f}",
            height=f"{height / 2:.0f}",
        )
        ET.SubElement(self.root, "title").text = sheet.title
        ET.SubElement(self.root, "rect", width="100%", height="100%", fill="#ffffff")
        for layer in sheet.layers:
            self._layer(layer)

    def written(self) -> str:
        """Return the document."""
        ET.indent(self.root, " ")
        return ET.tostring(self.root, encoding="unicode") + "\n"

    def _at(self, point: Flat) -> tuple[float, float]:
        return (point[0] - self.sheet.low[0]) * _PER_METRE, (self.sheet.high[1] - point[1]) * _PER_METRE

    def _layer(self, layer: Layer) -> None:
        group = ET.SubElement(self.root, "g", id=layer.key)
        for mark in layer.marks:
            match mark:
                case Line():
                    self._line(group, mark)
                case Dot():
                    self._dot(group, mark)
                case Words():
                    self._words(group, mark)
                case Span():
                    self._line(group, mark.strokes)
                    self._words(group, mark.words)

    def _line(self, group: ET.Element, line: Line) -> None:
        places = map(self._at, line.points)
        d = "".join(f"{'L' if i else 'M'}{x:.1f} {y:.1f}" for i, (x, y) in enumerate(places))
        given = {
            "d": d + ("Z" if line.closed else ""),
            "fill": COLOURS[line.fill] if line.fill else "none",
            "stroke": COLOURS[line.ink],
            "stroke-width": f"{max(line.width * _PER_METRE, _HAIR):.1f}",
        }
        if line.dash:
            given["stroke-dasharray"] = " ".join(f"{part * _PER_METRE:g}" for part in line.dash)
        ET.SubElement(group, "path", given)

    def _dot(self, group: ET.Element, dot: Dot) -> None:
        x, y = self._at(dot.at)
        radius = max(dot.radius * _PER_METRE, 1.5 * _HAIR)
        given = {"cx": f"{x:.1f}", "cy": f"{y:.1f}", "r": f"{radius:.1f}", "fill": COLOURS[dot.ink]}
        ET.SubElement(group, "circle", given)

    def _words(self, group: ET.Element, words: Words) -> None:
        x, y = self._at(words.at)
        given = {
            "x": f"{x:.1f}",
            "y": f"{y:.1f}",
            "text-anchor": words.anchor,
            "font-size": f"{self.sheet.letter * _PER_METRE:.1f}",
            "font-family": "Barlow, Arial, sans-serif",
            "fill": COLOURS["ink"],
        }
        ET.SubElement(group, "text", given).text = words.text
