"""Where each post, foot and anchor goes: by two measured distances from corners that can be found, by running
distance along a line, and the diagonals that prove it square.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Container, Sequence
from dataclasses import dataclass, field
from itertools import combinations, pairwise
from typing import Literal

import numpy as np
import shapely

from ..ground.plot import Laid, bed_middle, bed_outline, keep_of
from ..path.geometry import Member, Point
from ..plan.bed import Bed
from ..plan.features import Feature

Flat = tuple[float, float]
_SAME_LINE = 0.02  # of marks beside one another [m]
_FLATTEST = math.sin(math.radians(25.0))  # of the angle between two tapes
_LONGEST = 30.0  # of a tape [m]
_WITHIN = 12.0  # of a structure, where corners are looked for [m]
_MOST = 80  # marks that each get two tapes; of more, those that begin and end a line
_AGREE = 0.02  # between two diagonals [m], handbook-parts-3.1
_SHORT_AGREE = 0.015  # of a frame, whose feet are joined [m], handbook-parts-3.3
_SHORT = 3.0  # a diagonal of such a frame [m]
OFFSET = 0.5  # of a reference peg from what must not be dug at [m], common practice
# what is marked, in order, and how near to what is marked already it needs no mark of its own [m]
_STAKED = (("ring", 0.05), ("post", 0.05), ("anchor", 0.05), ("strut", 0.2), ("arm", 0.2))
_AT_FOOT = 0.2  # of something else that stands there [m]
_IN_RING = 0.4  # of a ring's middle, what is set by it [m]
_OWN_BED = 1.6  # times better a corner of its own bed is: one stands there already
_CORNERS = (135.0, 45.0, -45.0, -135.0)  # of a bed, as its outline has them, from its bearing [deg]
_BESIDE_PLANT = ("starter", "extension")


@dataclass(frozen=True)
class Corner:
    """Something that can be found in the garden to measure from; the way it lies from the middle of what it
    is a corner of, degrees from north.
    """

    kind: str
    of: str
    at: Flat
    bearing: float


@dataclass(frozen=True)
class Tape:
    """A distance from a corner. [m]"""

    corner: Corner
    length: float


@dataclass(frozen=True)
class Peg:
    """Where a reference peg stands: so far from a place, square off its line or on along its row. [m]"""

    at: Flat
    way: Literal["square", "along"]
    off: float


@dataclass(frozen=True)
class Stakeout:
    """A place to mark.

    member: what stands there; further members of the same place are not marked again.
    tapes: two distances that meet there; nothing where a line gives it well enough.
    line: which line it is on, from 0; -1 where it is on none.
    running: from the first mark of its line. [m]
    peg: a reference peg to measure from, where its own place is not to be dug at unseen.
    """

    member: Member
    at: Flat
    tapes: tuple[Tape, ...]
    line: int
    running: float
    peg: Peg | None = None


@dataclass(frozen=True)
class Diagonals:
    """Two diagonals of four marks, which agree within so much. [m]"""

    members: tuple[str, str, str, str]
    length: float
    within: float


@dataclass(frozen=True)
class Gauge:
    """The distance across between two lines, clear between their posts or from middle to middle. [m]"""

    lines: tuple[int, int]
    between: float
    clear: float


@dataclass(frozen=True)
class Centre:
    """The middle of a ring of feet, by two tapes, and how far the feet stand from it. [m]"""

    at: Flat
    tapes: tuple[Tape, ...]
    radius: float


@dataclass(frozen=True)
class StakeOut:
    """Everything to mark, line by line, and what proves it.

    edge: how far the first line lies inside the nearest edge of its bed, at its first and its last mark; a
    negative one lies outside. [m]
    centres: middles of rings, each by two tapes, with the radius of the ring. [m]
    """

    corners: tuple[Corner, ...]
    marks: tuple[Stakeout, ...]
    lines: tuple[tuple[str, ...], ...]
    diagonals: tuple[Diagonals, ...]
    gauges: tuple[Gauge, ...]
    edge: tuple[float, float] | None
    centres: tuple[Centre, ...] = field(default=())


def foot_of(member: Member) -> Point | None:
    """Return where a member meets the ground; nothing where it does not."""
    points = [*member.points, *(point for line in member.lines for point in (line[0], line[-1]))]
    low, high = min(points, key=lambda p: p[2]), max(points, key=lambda p: p[2])
    if low[2] > 0.05:
        return None
    if low[2] < 0 < high[2]:
        share = -low[2] / (high[2] - low[2])
        return low[0] + share * (high[0] - low[0]), low[1] + share * (high[1] - low[1]), 0.0
    return low[0], low[1], 0.0


def feet_of(member: Member) -> list[Point]:
    """Return every place where a member is to be marked on the ground: both ends of a hoop, the middle of a
    cage.
    """
    if member.role == "panel":
        return [(x, y, 0.0) for x, y, z in member.points if z <= 0.05]
    if member.role == "ring":
        line = member.lines[0] if member.lines else member.points
        return [(sum(p[0] for p in line) / len(line), sum(p[1] for p in line) / len(line), 0.0)]
    if member.role == "arm" and member.shape == "wires":
        ends = member.points[0], member.points[-1]
        return [(x, y, 0.0) for x, y, z in ends if z <= 0.05]
    foot = foot_of(member)
    return [foot] if foot else []


def staked_members(laid: Laid) -> list[tuple[Member, Flat]]:
    """Return what is to be marked, once for each place, in the structure's own ground."""
    found: list[tuple[Member, Flat]] = []
    for role, apart in _STAKED:
        for member in laid.geometry.members:
            if member.role != role or member.table == "existing" or member.key.startswith(_BESIDE_PLANT):
                continue
            for x, y, _ in feet_of(member):
                away = (
                    (math.hypot(x - px, y - py), one.role == "ring" and role != "ring")
                    for one, (px, py) in found
                )
                if all(distance > (_IN_RING if ringed else apart) for distance, ringed in away):
                    found.append((member, (x, y)))
    return found


def _apart(marked: Member, other: Member, usual: float) -> float:
    """Return how far a place must be from what is marked there to be marked itself: a stake at a foot is
    set by that foot. [m]
    """
    if marked.role == "ring" != other.role:
        return _IN_RING
    return usual if marked.item == other.item else _AT_FOOT


def stake_out(
    laid: Laid, beds: Sequence[Bed], features: Sequence[Feature], unsafe: Container[str]
) -> StakeOut:
    """Return how a structure is staked out.

    Args:
        laid: The structure where it stands on the plan.
        beds: The garden's beds, whose corners can be found.
        features: What else is on its plan: walls, fences, posts and stumps can be found too.
        unsafe: Members whose place is too near something buried; those get a reference peg off the line.

    Source: handbook-parts-3.1, 3.2; two tapes and running distances, common practice, no source
    """
    places = staked_members(laid)
    lines = _lines([at for _, at in places])
    corners = corners_near(laid, beds, features)
    spots = [laid.spot(*at) for _, at in places]
    ends = {i for line in lines for i in (line[0], line[-1])} | {
        i for i in range(len(places)) if not any(i in line for line in lines)
    }
    taped = range(len(places)) if len(places) <= _MOST else sorted(ends)
    pair = _best_pair(corners, [spots[i] for i in taped], laid.bed.name)
    marks = []
    for i, (member, at) in enumerate(places):
        on = next((n for n, line in enumerate(lines) if i in line), -1)
        first = places[lines[on][0]][1] if on >= 0 else at
        own = (
            pair
            if pair and _angle(*pair, spots[i]) >= _FLATTEST
            else _best_pair(corners, [spots[i]], laid.bed.name)
        )
        tapes = tuple(Tape(c, math.dist(c.at, spots[i])) for c in own or ()) if i in taped else ()
        peg = _peg(laid, at, features) if member.key in unsafe else None
        marks.append(Stakeout(member, spots[i], tapes, on, math.dist(first, at), peg))
    marks.sort(key=lambda mark: (mark.line < 0, mark.line, mark.running))
    named = tuple(tuple(places[i][0].key for i in line) for line in lines)
    centres = _centres(laid, corners)
    used = {tape.corner for mark in marks for tape in mark.tapes}
    used |= {tape.corner for centre in centres for tape in centre.tapes}
    return StakeOut(
        tuple(c for c in corners if c in used),
        tuple(marks),
        named,
        _diagonals(places, lines),
        _gauges(places, lines),
        _edge(laid, [places[i][1] for i in (lines[0][0], lines[0][-1])]) if lines else None,
        centres,
    )


def _lines(places: Sequence[Flat]) -> list[list[int]]:
    """Return the lines that places are on, each by indices from its first: along the row first, then across
    it.
    """
    lines: list[list[int]] = []
    for on, along in ((1, 0), (0, 1)):
        groups: list[list[int]] = []
        for i in sorted(range(len(places)), key=lambda i: (places[i][on], places[i][along])):
            if groups and places[i][on] - places[groups[-1][0]][on] <= _SAME_LINE:
                groups[-1].append(i)
            else:
                groups.append([i])
        marked = {i for line in lines for i in line}
        lines += [
            sorted(group, key=lambda i: places[i][along])
            for group in groups
            if len(group) >= 2 and not marked.issuperset(group)
        ]
    return sorted(lines, key=lambda line: -len(line))


def corners_near(laid: Laid, beds: Sequence[Bed], features: Sequence[Feature]) -> list[Corner]:
    """Return what can be found near a structure, nearest first."""
    corners = []
    for bed in beds:
        for turn, (x, y) in zip(_CORNERS, bed_outline(bed), strict=True):
            corners.append(Corner("bed", bed.name, (float(x), float(y)), (bed.bearing + turn) % 360.0))
    for feature in features:
        if feature.kind in ("wall", "fence"):
            for end, other in (
                (feature.points[0], feature.points[-1]),
                (feature.points[-1], feature.points[0]),
            ):
                corners.append(Corner(feature.kind, feature.name, end, _bearing(other, end)))
        elif feature.kind in ("steel-post", "stump"):
            corners.append(Corner(feature.kind, feature.name, feature.points[0], 0.0))
    middle = laid.line.interpolate(0.5, normalized=True)
    near = [(math.dist(c.at, (middle.x, middle.y)), i, c) for i, c in enumerate(corners)]
    reach = laid.geometry.length / 2 + _WITHIN
    return [c for away, _, c in sorted(near) if away <= reach][:24]


def _bearing(start: Flat, end: Flat) -> float:
    return math.degrees(math.atan2(end[0] - start[0], end[1] - start[1])) % 360.0


def _angle(a: Corner, b: Corner, at: Flat) -> float:
    """Return the sine of the angle at which the tapes from two corners meet; nothing of it where one is too
    long or none at all.
    """
    (ax, ay), (bx, by) = (a.at[0] - at[0], a.at[1] - at[1]), (b.at[0] - at[0], b.at[1] - at[1])
    long, short = max(math.hypot(ax, ay), math.hypot(bx, by)), min(math.hypot(ax, ay), math.hypot(bx, by))
    if long > _LONGEST or short < 0.05:
        return 0.0
    return abs(ax * by - ay * bx) / (math.hypot(ax, ay) * math.hypot(bx, by))


def _best_pair(corners: Sequence[Corner], spots: Sequence[Flat], bed: str) -> tuple[Corner, Corner] | None:
    """Return the two corners from which places are measured best: no flat triangles, then short tapes."""
    best, score = None, 0.0
    for a, b in combinations(corners, 2):
        if math.dist(a.at, b.at) < 0.5:
            continue
        flattest = min((_angle(a, b, at) for at in spots), default=0.0)
        longest = max((max(math.dist(a.at, at), math.dist(b.at, at)) for at in spots), default=0.0)
        own = min(flattest, 0.7) / (1.0 + longest / 8.0) * (_OWN_BED if a.of == b.of == bed else 1.0)
        if flattest >= _FLATTEST / 2 and own > score:
            best, score = (a, b), own
    return best


def _peg(laid: Laid, at: Flat, features: Sequence[Feature]) -> Peg | None:
    """Return where a reference peg stands, clear of everything buried all along its course: square off the
    line, else on along the row, as near as may be; nothing where no such place is clear.

    Source: handbook-parts-4.6, the distances kept; common practice, no source, the peg
    """
    lines = [(shapely.LineString(f.points), keep_of(f) + f.width / 2) for f in features if keep_of(f)]
    for off in (OFFSET, 2 * OFFSET):
        ways: tuple[tuple[Literal["square", "along"], float, float], ...] = (
            ("square", 0.0, off),
            ("square", 0.0, -off),
            ("along", off, 0.0),
            ("along", -off, 0.0),
        )
        pegs = [Peg(laid.spot(at[0] + a, at[1] + c), way, off) for way, a, c in ways]
        clear = {
            peg: min(line.distance(shapely.Point(peg.at)) - keep for line, keep in lines) for peg in pegs
        }
        square = max(pegs[:2], key=clear.__getitem__)
        best = square if clear[square] >= 0.0 else max(pegs[2:], key=clear.__getitem__)
        if clear[best] >= 0.0:
            return best
    return None


def _diagonals(
    places: Sequence[tuple[Member, Flat]], lines: Sequence[Sequence[int]]
) -> tuple[Diagonals, ...]:
    """Return the diagonals of the outermost four marks of every two lines that stand opposite."""
    found = []
    for one, other in combinations(lines, 2):
        a, b, c, d = one[0], one[-1], other[0], other[-1]
        sides = math.dist(places[a][1], places[b][1]), math.dist(places[c][1], places[d][1])
        across = math.dist(places[a][1], places[c][1]), math.dist(places[b][1], places[d][1])
        lengths = math.dist(places[a][1], places[d][1]), math.dist(places[b][1], places[c][1])
        square = abs(sides[0] - sides[1]) < _SAME_LINE and abs(lengths[0] - lengths[1]) < _SAME_LINE
        if square and min(*sides, *across) > 0.1:
            names = tuple(places[i][0].key for i in (a, b, c, d))
            within = _SHORT_AGREE if lengths[0] < _SHORT else _AGREE
            found.append(Diagonals((names[0], names[1], names[2], names[3]), lengths[0], within))
    return tuple(found[:4])


def _gauges(places: Sequence[tuple[Member, Flat]], lines: Sequence[Sequence[int]]) -> tuple[Gauge, ...]:
    """Return the distances between lines along the row that stand opposite, from middle to middle and clear
    between what stands there.
    """
    long = [
        n for n, line in enumerate(lines) if abs(places[line[0]][1][1] - places[line[-1]][1][1]) < _SAME_LINE
    ]
    across = sorted(long, key=lambda n: places[lines[n][0]][1][1])
    gauges = []
    for a, b in pairwise(across):
        (one, at), (other, to) = places[lines[a][0]], places[lines[b][0]]
        between = to[1] - at[1]
        clear = between - (one.thickness + other.thickness) / 2
        gauges.append(Gauge((a, b), between, clear))
    return tuple(gauges)


def _edge(laid: Laid, ends: Sequence[Flat]) -> tuple[float, float]:
    """Return how far places lie inside the nearest long edge of the bed. [m]"""
    off = np.abs(bed_middle(laid.bed).into(laid.frame.out(np.array(ends)))[:, 1])
    return laid.bed.width / 2 - float(off[0]), laid.bed.width / 2 - float(off[1])


def _centres(laid: Laid, corners: Sequence[Corner]) -> tuple[Centre, ...]:
    """Return the middles of rings of leaning poles: what three poles and more lean to."""
    leaning: dict[Flat, list[float]] = defaultdict(list)
    knots = [m.points[0] for m in laid.geometry.members if m.key.startswith("lashing")]
    for member in laid.geometry.by_role("post"):
        foot, head = foot_of(member), member.points[-1]
        if foot and knots and math.dist(foot[:2], head[:2]) > 0.1:
            x, y, _ = min(knots, key=lambda knot: math.dist(knot[:2], head[:2]))
            leaning[round(x, 2), round(y, 2)].append(math.dist(foot[:2], (x, y)))
    centres = []
    for middle, radii in leaning.items():
        if len(radii) >= 3:
            at = laid.spot(*middle)
            pair = _best_pair(corners, [at], laid.bed.name) or ()
            tapes = tuple(Tape(corner, math.dist(corner.at, at)) for corner in pair)
            centres.append(Centre(at, tapes, sum(radii) / len(radii)))
    return tuple(centres)
