"""A drawn sheet: marks in layers, in metres, inks by name. Whoever writes a file of it decides nothing more
than how that kind of file says a line, a dot, a word.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..words.quantities import System, to_si

Flat = tuple[float, float]
Ink = Literal["ink", "wood", "cane", "metal", "soil", "leaf", "path", "wall", "water", "bed", "pale"]
Anchor = Literal["start", "middle"]

_EDGE = 0.8  # of paper round a drawing [m]
_LETTER = 0.16  # least height of a letter [m]
_LETTERS = 90  # in the width of a sheet


@dataclass(frozen=True)
class Line:
    """Through points, [m]; `dash` are lengths drawn and left out in turn, [m]; `fill` of a closed one."""

    points: tuple[Flat, ...]
    width: float = 0.02
    ink: Ink = "ink"
    closed: bool = False
    fill: Ink | None = None
    dash: tuple[float, ...] = ()


@dataclass(frozen=True)
class Dot:
    """A filled circle. [m]"""

    at: Flat
    radius: float
    ink: Ink = "ink"


@dataclass(frozen=True)
class Words:
    """Written so that they begin, or have their middle, at a point on their line. [m]"""

    at: Flat
    text: str
    anchor: Anchor = "middle"


@dataclass(frozen=True)
class Span:
    """A measure between two points, drawn on a line beside them that two others lead to. [m]

    line: where it is drawn, from end to end. value: what it measures. text: as it is written.
    """

    start: Flat
    end: Flat
    line: tuple[Flat, Flat]
    value: float
    text: str

    @property
    def strokes(self) -> Line:
        """Return the lines that it is drawn by."""
        return Line((self.start, *self.line, self.end), 0.006)

    @property
    def words(self) -> Words:
        """Return what is written at its middle: beside an upright one, over one that lies."""
        (x0, y0), (x1, y1) = self.line
        x, y = (x0 + x1) / 2, (y0 + y1) / 2
        upright = abs(x1 - x0) < abs(y1 - y0)
        return Words((x + 0.05, y), self.text, "start") if upright else Words((x, y + 0.05), self.text)


Mark = Line | Dot | Words | Span


@dataclass(frozen=True)
class Layer:
    """Marks that a drawing program shows or hides together; the first lies lowest."""

    key: str
    marks: tuple[Mark, ...]


@dataclass(frozen=True)
class Sheet:
    """A drawing with paper round it, and how tall its letters are. [m]"""

    title: str
    low: Flat
    high: Flat
    letter: float
    layers: tuple[Layer, ...]


@dataclass
class Drawn:
    """A sheet while it is being drawn on.

    low, high: How far what is drawn reaches. [m]
    """

    title: str
    low: Flat
    high: Flat
    layers: dict[str, list[Mark]] = field(default_factory=dict)

    @property
    def letter(self) -> float:
        """Return the height of a letter that can be read on a sheet as wide as this. [m]"""
        return max(_LETTER, (self.high[0] - self.low[0] + 2 * _EDGE) / _LETTERS)

    def on(self, layer: str, *marks: Mark) -> None:
        """Put marks on a layer; layers lie over one another in the order they are first drawn on."""
        self.layers.setdefault(layer, []).extend(marks)

    def bare(self) -> Sheet:
        """Return the sheet without paper round it, for what is drawn small."""
        layers = tuple(Layer(key, tuple(marks)) for key, marks in self.layers.items())
        return Sheet(self.title, self.low, self.high, self.letter, layers)

    def done(self) -> Sheet:
        """Return the sheet."""
        return Sheet(
            self.title,
            (self.low[0] - _EDGE, self.low[1] - _EDGE),
            (self.high[0] + _EDGE, self.high[1] + _EDGE),
            self.letter,
            tuple(Layer(key, tuple(marks)) for key, marks in self.layers.items()),
        )


def moved(points: Iterable[Flat], by: Flat) -> tuple[Flat, ...]:
    """Return points moved. [m]"""
    return tuple((x + by[0], y + by[1]) for x, y in points)


def scale_bar(at: Flat, room: float, system: System) -> Sequence[Mark]:
    """Return a bar of a round number of metres or feet, as long as fits.

    Args:
        at: Its lower left end. [m]
        room: Greatest length. [m]
        system: Whose units.
    """
    unit = to_si("metre" if system == "metric" else "foot")
    count = next((n for n in (50, 20, 10, 5, 2, 1) if n * unit <= room), 1)
    (x, y), long = at, count * unit
    return (
        Line(((x, y + 0.1), (x, y), (x + long, y), (x + long, y + 0.1))),
        Words((x + long + 0.1, y), f"{count} {'m' if system == 'metric' else 'ft'}", "start"),
    )


def north(at: Flat, letter: float) -> Sequence[Mark]:
    """Return an arrow to the top of the sheet, where north is. [m]"""
    x, y = at
    return (
        Line(((x - 0.1, y + 0.4), (x, y + 0.6), (x + 0.1, y + 0.4))),
        Line(((x, y), (x, y + 0.6))),
        Words((x, y - letter), "N"),
    )
