"""The typefaces that paper is set in: the app's own, and for letters that it lacks one of their script."""

from __future__ import annotations

import csv
import unicodedata
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from fontTools.ttLib import TTFont

from ..memory import remembered

OWN = {"": "barlow-400.ttf", "B": "barlow-600.ttf"}
FOLDER = Path(__file__).parent.parent / "data"
_MORE = FOLDER / "typefaces"
_VARIES = "varies"  # one file for both weights
WEIGHTS = {"": 400.0, "B": 600.0}
_JOINERS = "\u200c\u200d"  # part of how some scripts are written
_KANA = range(0x3040, 0x3100)
_JAPANESE = "noto-sans-jp"


@dataclass(frozen=True)
class Typeface:
    """A file of letters: its style (‘B’ is strong), and the letters that it is for; `varies` has both
    weights.
    """

    file: Path
    style: str
    letters: frozenset[int]

    @property
    def varies(self) -> bool:
        """Return whether its weight is chosen."""
        return self.style == _VARIES


@remembered(512)
def drawn(file: Path) -> frozenset[int]:
    """Return the letters that a file draws."""
    with TTFont(file) as font:
        return frozenset(font.getBestCmap())


@cache
def _others() -> tuple[Typeface, ...]:
    """Return the typefaces beside the own one, in the order in which they are tried; none where they were not
    set up.
    """
    index = _MORE / "typefaces.csv"
    if not index.exists():
        return ()
    with index.open(encoding="utf-8", newline="") as handle:
        return tuple(
            Typeface(_MORE / row["file"], row["style"], _letters(row["letters"]))
            for row in csv.DictReader(handle)
        )


def _letters(ranges: str) -> frozenset[int]:
    ends = (each.split("-") for each in ranges.split())
    return frozenset(code for pair in ends for code in range(int(pair[0], 16), int(pair[-1], 16) + 1))


def typefaces_for(text: str, style: str = "") -> tuple[Typeface, ...]:
    """Return the typefaces of a style that draw the letters of a text which the own one lacks. Characters
    that Chinese and Japanese share are drawn as the text around them is.
    """
    left = {ord(letter) for letter in text} - drawn(FOLDER / OWN[""])
    if not left:
        return ()
    japanese = any(code in _KANA for code in left)
    found: list[Typeface] = []
    for face in sorted(_others(), key=lambda face: not (japanese and face.file.name.startswith(_JAPANESE))):
        if left & face.letters and face.style in (style, _VARIES) and (here := left & drawn(face.file)):
            left -= here
            found.append(face)
    return tuple(found)


def undrawn(text: str) -> str:
    """Return the letters of a text that no typeface draws, each once."""
    known = drawn(FOLDER / OWN[""]).union(*(drawn(face.file) for face in typefaces_for(text)))
    return "".join(dict.fromkeys(each for each in composed(text) if ord(each) not in known and each != "\n"))


def composed(text: str) -> str:
    """Return a text with its letters composed, without marks that are not drawn: what chooses the look of a
    sign or the direction of writing.
    """
    plain = unicodedata.normalize("NFC", text)
    return "".join(
        each
        for each in plain
        if each in _JOINERS or (unicodedata.category(each) != "Cf" and each not in "\ufe0e\ufe0f")
    )
