"""The stakeout of a support in words: corners, marks, tapes and checks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..building.before import Near
from ..building.stakeout import Corner, StakeOut, Stakeout, Tape
from ..ground.plot import Laid
from ..words.quantities import System, write
from ..words.texts import say, template
from .build_before import unsafe_members
from .build_readout import CornerReport, MarkReport, StakeReport
from .figures import capital

_LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"
_OF_ROLE = {"post": "P", "anchor": "A", "strut": "S", "arm": "H", "ring": "C"}
_WINDS = ("north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west")


def corner_letters(staked: StakeOut) -> dict[Corner, str]:
    """Return a letter for each corner that tapes are laid from."""
    return {corner: _LETTERS[i % len(_LETTERS)] for i, corner in enumerate(staked.corners)}


def names_of(staked: StakeOut) -> dict[str, str]:
    """Return what each marked member is called, by what it is and its place in its line: ‘P3’."""
    count: dict[str, int] = {}
    names: dict[str, str] = {}
    for mark in staked.marks:
        letter = _OF_ROLE.get(mark.member.role, "F")
        count[letter] = count.get(letter, 0) + 1
        names.setdefault(mark.member.key, f"{letter}{count[letter]}")
    return names


def stake_report(
    staked: StakeOut, near: Sequence[Near], names: Mapping[str, str], laid: Laid, system: System
) -> StakeReport:
    """Return the stakeout in words."""
    letters = corner_letters(staked)
    unsafe = unsafe_members(near)

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
