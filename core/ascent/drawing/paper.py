"""What goes on paper: blocks one below the other. Whoever writes a file of it decides only how they look."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .sheet import Sheet


@dataclass(frozen=True)
class Heading:
    """A heading: 1 the title, 2 a part that may begin a page, 3 a step."""

    text: str
    rank: Literal[1, 2, 3] = 2
    fresh_page: bool = False


@dataclass(frozen=True)
class Text:
    """A paragraph; ‘care’ is framed."""

    text: str
    look: Literal["plain", "strong", "quiet", "care"] = "plain"


@dataclass(frozen=True)
class Listed:
    """Lines each with a mark before it: a point, or a box to tick; large ones are read from a wall."""

    items: tuple[str, ...]
    boxes: bool = False
    large: bool = False


@dataclass(frozen=True)
class PaperTable:
    """Rows under a head; widths are shares of the page."""

    head: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    widths: tuple[float, ...]


@dataclass(frozen=True)
class Drawing:
    """A sheet as wide as the page, at most so high. [m]"""

    sheet: Sheet
    high: float


@dataclass(frozen=True)
class Beside:
    """A small drawing with words beside it. [m]"""

    sheet: Sheet
    wide: float
    title: str
    text: str


Block = Heading | Text | Listed | PaperTable | Drawing | Beside


@dataclass(frozen=True)
class Paper:
    """A document: its title, what stands at the foot of each page, and its blocks."""

    title: str
    foot: str
    blocks: tuple[Block, ...]
