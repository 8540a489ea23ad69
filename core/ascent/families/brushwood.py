"""Brushwood: twiggy sticks pushed in along a row, upright or crossed, or round a pot; or one to bring a
climber to its wire.
"""

from __future__ import annotations

import math
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, strings
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts, pots
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_LINE = 0.12  # of the feet of crossed sticks from the row's middle [m], parts handbook 3.15
_CROSS_AT = 0.85  # of its height, where a stick crosses the one across, parts handbook 3.15
_RUN_AT = 2 / 3  # of its height, where a string runs, parts handbook 3.15
_SLACK = 1.02  # of a string along a row, parts handbook 3.15
_FANS = (0.35, 0.55, 0.75)  # of its height, where a stick forks


class BrushwoodOptions(Typed):
    """What must be decided of brushwood. Lengths in metres."""

    length: float = measure("row", "length", 3.0, 0.2, 20.0, 0.05, asked=True)
    pattern: Literal["upright", "crossed", "ring", "starter"] = choice("row", "crossed", asked=True)
    stick: Annotated[str, row_of("posts", "brush")] = item("sticks", "posts", "brush_12", "brush")
    stick_length: float = measure("sticks", "length", 1.2, 0.4, 1.8, 0.05, tries=(-0.2, -0.3), asked=True)
    in_soil: float = measure("sticks", "length", 0.25, 0.05, 0.6, 0.01, tries=DEEPER)
    stick_spacing: float = measure("sticks", "length", 0.20, 0.05, 0.6, 0.01, tries=(-0.05, -0.1))
    season: int = measure("sticks", "count", 1, 1, 3, 1, asked=True)
    tied: Literal["none", "string", "cane"] = choice("tied", "string")
    twine: Annotated[str, row_of("twines", "run")] = item(
        "tied", "twines", "sisal_2.5", "run", when=("tied", ("string",))
    )
    cane: Annotated[str, row_of("posts", "rung")] = item(
        "tied", "posts", "cane_12", "rung", when=("tied", ("cane",))
    )
    end_stake: Annotated[str, row_of("posts", "stake")] = item(
        "tied", "posts", "post_sw_stake_25", "stake", when=("tied", ("string", "cane"))
    )
    end_depth: float = measure("tied", "length", 0.40, 0.2, 0.8, 0.01, when=("tied", ("string", "cane")))


class _Thicket(Stand[BrushwoodOptions]):
    """Everything the checks of brushwood need, worked out once for its cases."""

    @cached_property
    def stick(self) -> rows.Post:
        return tables.posts()[self.options.stick]

    @cached_property
    def height(self) -> float:
        return _height(self.options)

    @cached_property
    def left(self) -> float:
        """Return the share of its strength that a stick keeps: a quarter goes with each season in the
        soil.
        """
        return max(1.0 - tables.constant("brush_ages") * (self.options.season - 1), 0.5)

    @cached_property
    def lines(self) -> float:
        """Return how many sticks stand at each place along the row."""
        return 2.0 if self.options.pattern == "crossed" else 1.0

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(
            self.growths, tables.constant("brush_solidity"), 0.0, self.height, self.cases
        )

    @cached_property
    def broad(self) -> float:
        """Return the length of face that stands on one stick. [m]"""
        if self.options.pattern == "starter":
            return min(max(p.spacing for p in self.structure.plantings), 0.3)
        return self.options.stick_spacing / self.lines

    @cached_property
    def uneven(self) -> float:
        """Return how much more the worst stick takes than the mean: strings or a cane along the row share it
        out.
        """
        return 1.0 if self.tied_along else tables.constant("tie_uneven")

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one stick and where it acts, [N] and [m]."""
        return np.asarray(self.wind.force * self.broad), np.asarray(np.minimum(self.wind.height, self.height))

    @cached_property
    def leaning(self) -> Array:
        """Return the moment of the vines that lean on one stick. [N·m]"""
        total = self.nothing
        for growth in self.growths:
            lines = 2.0 if growth.planting.side == "both" else 1.0
            per_metre = growth.plant_kg * lines / growth.planting.spacing
            total = (
                total + (per_metre * np.minimum(growth.top, self.height) / 2)[None, :, None] * self.cases.crop
            )
        return np.asarray(
            total
            * tables.constant("gravity")
            * math.sin(math.radians(tables.constant("lean_angle")))
            * self.broad
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from tendril to ground."""
        force, height = self.blown
        moment = (force * height + self.leaning) * self.uneven
        onto = np.asarray(moment / np.maximum(height, 0.05))
        side = (Arrow((0.0, 0.0, self.height / 2), (0.0, 1.0, 0.0)),)
        sticks = keys(self.geometry.by_role("post"))
        pot = pots.link(self.site.bed, self.wind.force * self.options.length, height, ("in_soil",))
        check = bending.aged(
            bending.post_across(self.stick, onto, np.maximum(height, 0.05), np.ones((1, 1, 1))), self.left
        )
        to = ("soil", *(("along",) if self.tied_along else ()))
        links = [
            Link(
                "stick",
                sticks,
                ("posts", self.stick.key),
                to,
                ("stick", "stick_spacing", "tied", "stick_length", "pattern"),
                force,
                (check,),
                side,
            ),
            self.soil_grip(
                self.stick,
                self.options.in_soil,
                onto,
                np.maximum(height, 0.05),
                ("in_soil", "stick_spacing", "tied"),
                below=("pot",) if pot else (),
            ),
        ]
        return (*links, *(self._runs() if self.tied_along else ()), *pot)

    @cached_property
    def tied_along(self) -> bool:
        return self.options.tied != "none" and self.options.pattern in ("upright", "crossed")

    def _runs(self) -> list[Link]:
        """Return the string or cane along the row: what one stick takes too much it hands to its
        neighbours.
        """
        pull = np.asarray((tables.constant("tie_uneven") - 1.0) * self.blown[0])
        members = tuple(m.key for m in self.geometry.members if m.key.startswith("along"))
        if self.options.tied == "string":
            twine = tables.twines()[self.options.twine]
            return [
                Link(
                    "along",
                    members,
                    ("twines", twine.key),
                    ("soil",),
                    ("twine", "tied"),
                    pull,
                    (strings.cord(twine, pull, self.tied_on),),
                )
            ]
        cane = tables.posts()[self.options.cane]
        span = 2 * self.options.stick_spacing
        check = bending.rail(cane, self.nothing, pull / span, span)
        return [Link("along", members, ("posts", cane.key), ("soil",), ("cane", "tied"), pull, (check,))]

    def service(self) -> tuple[Service, ...]:
        """Return how far the tops of the sticks lean."""
        force, height = self.blown
        half = np.maximum(height, 0.05)
        moved = (
            self.uneven
            * force
            * posts.lean_per_force(
                self.stick, self.ground, self.options.in_soil, half, half, self.height, self.cases
            )
        )
        return (
            Service(
                "stick-lean",
                np.minimum(moved, self.height),
                self.height / 4,
                "handbook-parts-3.15",
                ("tied", "in_soil", "stick_spacing"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the moment of wind and lean about the ground, and what the sticks take of it. [N·m]"""
        _, height = self.blown
        sticks = (
            self.options.length / self.options.stick_spacing * self.lines
            if self.options.pattern != "starter"
            else len(self.geometry.plants)
        )
        whole = self.wind.force * self.broad * sticks * height + self.leaning * sticks
        bent = next(link for link in self.path() if link.key == "stick").checks[0]
        return whole, np.asarray(bent.demand / self.uneven * sticks)


class Brushwood(Family[BrushwoodOptions]):
    """Twiggy sticks."""

    key: ClassVar[str] = "brushwood"
    options = BrushwoodOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return sticks for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        row = plants.sown(need, site, longest=20.0, shortest=0.2)
        potted = bed.kind == "container"
        room = max(bed.raised_by - 0.02, 0.05) if potted else 0.6
        depth = round(
            min(max(0.25, 0.2 * min(plant.support_height_m, 1.5), min(bed.raised_by + 0.1, 0.45)), room), 2
        )
        wanted = min(plant.support_height_m, 1.5) + depth
        lengths = tables.posts()["brush_12"].lengths_m
        long = min((length for length in lengths if length >= wanted - 0.15), default=max(lengths))
        starter = plant.support_height_m > 1.8 and not potted
        pattern = "ring" if potted else "starter" if starter else "crossed"
        long = 0.6 if starter else long
        options = BrushwoodOptions(
            length=row.length,
            stick="brush_15" if long > 1.2 else "brush_12",
            pattern=pattern,
            stick_length=long,
            in_soil=min(depth, 0.2) if starter else depth,
            tied="none" if potted or starter else "string",
        )
        reasons = {
            **row.reasons,
            "pattern": Reason(f"pattern_{pattern}", words={"crop": plant.name}),
            "stick": Reason("stick"),
            "stick_length": Reason(
                "stick_length", {"length": (long, "length"), "depth": (options.in_soil, "length")}
            ),
            "in_soil": Reason("depth_stick", {"depth": (options.in_soil, "length")}),
            "stick_spacing": Reason("stick_spacing", {"spacing": (options.stick_spacing, "length")}),
            "season": Reason("stick_season"),
            "tied": Reason("tied_none" if options.tied == "none" else "tied_string"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: BrushwoodOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return sticks, what ties them along the row, and plants, in metres."""
        row, height = tables.posts()[options.stick], _height(options)
        grown = _plants(options, plantings, site.bed.width)
        members: list[Member] = []
        for n, (foot, head) in enumerate(_sticks(options, plantings, site.bed.width)):
            low = _below(foot, head, options.in_soil)
            fans = _fan(foot, head, options, n)
            bought = posts.stock_length(row, options.stick_length)
            members.append(
                Member(
                    f"post-{n + 1}",
                    "post",
                    "posts",
                    row.key,
                    (low, head),
                    bought,
                    row.soil_width,
                    "wires",
                    lines=((low, head), *fans),
                )
            )
            members.append(
                Member(f"grip-{n + 1}", "grip", "", "", (low, foot), thickness=4.0 * row.soil_width)
            )
        if options.tied != "none" and options.pattern in ("upright", "crossed"):
            members += _tied(options, height)
        end = options.length
        dimensions = (
            Dimension(
                "options.length", "elevation", (0, 0, -options.in_soil), (end, 0, -options.in_soil), end, -0.5
            ),
            Dimension(
                "options.in_soil", "elevation", (0, 0, -options.in_soil), (0, 0, 0), options.in_soil, -0.7
            ),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        unit = end if options.pattern == "ring" else 0.3
        return Geometry(
            located(members), grown, dimensions, (), end, height, options.in_soil, climb=height, unit=unit
        )

    def loaded(
        self, options: BrushwoodOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Thicket:
        """Return the sticks under the loads of the cases."""
        return _Thicket(options, geometry, structure, site, cases)

    def remarks(
        self, options: BrushwoodOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: sticks long enough and new enough, tied or not, and what a
        starter leads to.
        """
        row, height = tables.posts()[options.stick], _height(options)
        remarks = [
            *fits.of_ground(site.bed, options.length, options.in_soil),
            *fits.of_stock(row, options.stick_length, ("stick_length",)),
        ]
        if options.season > row.life_dry:
            remarks.append(
                Remark(
                    "sticks-old",
                    "wrong",
                    {"season": (options.season, "count"), "life": (row.life_dry, "count")},
                    source="handbook-parts-2.1",
                    levers=("season",),
                )
            )
        elif options.season > 1:
            remarks.append(
                Remark(
                    "sticks-second",
                    "watch",
                    {"share": ((1 - tables.constant("brush_ages")) * 100, "count")},
                    source="handbook-3.4",
                    levers=("season",),
                )
            )
        if options.in_soil < 0.2 * options.stick_length - 0.011:
            remarks.append(
                Remark(
                    "sticks-shallow",
                    "watch",
                    {"depth": (0.2 * options.stick_length, "length")},
                    source="handbook-parts-3.15",
                    levers=("in_soil",),
                )
            )
        if options.tied == "none" and options.pattern in ("upright", "crossed"):
            remarks.append(Remark("sticks-topple", "watch", source="handbook-parts-3.15", levers=("tied",)))
        if options.pattern == "starter":
            remarks.append(
                Remark(
                    "starter-leads",
                    "watch",
                    {"height": (height, "length")},
                    source="handbook-parts-3.15",
                    levers=("pattern",),
                )
            )
        remarks.append(Remark("sticks-dry", "fine", source="handbook-parts-3.15"))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, options.length),
                *fits.of_tying(planting),
            ]
            if options.pattern != "starter" and crop.height_m > height + 0.35:
                values = {
                    "vine": (crop.height_m, "length"),
                    "top": (height, "length"),
                    "over": (crop.height_m - height, "length"),
                }
                remarks.append(
                    Remark(
                        "sticks-outgrown",
                        "watch",
                        values,
                        {"crop": crop.name},
                        "handbook-parts-3.15",
                        ("stick_length",),
                    )
                )
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of setting sticks."""
        return ("sticks-eyes", "judgement")


def _height(options: BrushwoodOptions) -> float:
    """Return the height of the tops over the soil: crossed ones lean inward. [m]"""
    above = max(options.stick_length - options.in_soil, 0.1)
    return above * math.cos(_lean(options))


def _lean(options: BrushwoodOptions) -> float:
    """Return the lean of crossed sticks from upright, atan(0.12 ÷ (0.85 H)) (parts handbook 3.15). [rad]"""
    if options.pattern != "crossed":
        return 0.0
    return math.atan(_LINE / (_CROSS_AT * max(options.stick_length - options.in_soil, 0.1)))


def _sticks(
    options: BrushwoodOptions, plantings: tuple[Planting, ...], width: float
) -> list[tuple[Point, Point]]:
    """Return the foot and the head of each stick."""
    above, sticks = max(options.stick_length - options.in_soil, 0.1), []
    height = _height(options)
    if options.pattern == "ring":
        radius = max(min(options.length, width) / 2 - 0.03, 0.05)
        count = max(math.ceil(math.tau * radius / options.stick_spacing), 3)
        for n in range(count):
            angle = math.tau * n / count
            foot = (options.length / 2 + radius * math.cos(angle), radius * math.sin(angle), 0.0)
            sticks.append(
                (
                    foot,
                    (
                        options.length / 2 + 0.6 * radius * math.cos(angle),
                        0.6 * radius * math.sin(angle),
                        height,
                    ),
                )
            )
        return sticks
    if options.pattern == "starter":
        for plant in plants.along(plantings, options.length):
            x, y, _ = plant.at
            sticks.append(((x, y + math.copysign(0.05, y), 0.0), (x, y * 0.2, above * 0.97)))
        return sticks
    count = math.floor(options.length / options.stick_spacing + 1e-6) + 1
    start = (options.length - (count - 1) * options.stick_spacing) / 2
    reach = math.sin(_lean(options)) * above
    for x in (start + n * options.stick_spacing for n in range(count)):
        if options.pattern == "upright":
            sticks.append(((x, 0.0, 0.0), (x, 0.0, height)))
        else:
            sticks += [((x, side * _LINE, 0.0), (x, side * (_LINE - reach), height)) for side in (1.0, -1.0)]
    return sticks


def _below(foot: Point, head: Point, depth: float) -> Point:
    """Return the lower end of a stick, in line with it in the soil."""
    (x, y, _), (hx, hy, hz) = foot, head
    share = depth / max(hz, 0.05)
    return x - (hx - x) * share * 0.5, y - (hy - y) * share * 0.5, -depth


def _fan(foot: Point, head: Point, options: BrushwoodOptions, number: int) -> list[tuple[Point, ...]]:
    """Return the twigs of a stick, fanned out along the row."""
    (x, y, _), (hx, hy, hz) = foot, head
    wide = min(0.15 + 0.12 * options.stick_length, 0.3)
    twigs: list[tuple[Point, ...]] = []
    for k, share in enumerate(_FANS):
        way = 1.0 if (k + number) % 2 == 0 else -1.0
        fork: Point = (x + share * (hx - x), y + share * (hy - y), share * hz)
        up = min(share + 0.25, 0.98)
        tip: Point = (x + up * (hx - x) + way * wide * (1 - share), y + up * (hy - y), up * hz)
        twigs.append((fork, tip))
    return twigs


def _tied(options: BrushwoodOptions, height: float) -> list[Member]:
    """Return the strings on both sides or the cane along the row, with a stake at each end."""
    at, end, members = _RUN_AT * height, options.length, []
    side = _LINE * (1 - _RUN_AT * 0.9) if options.pattern == "crossed" else 0.03
    if options.tied == "string":
        row = tables.twines()[options.twine]
        for name, y in (("left", side), ("right", -side)):
            members.append(
                Member(
                    f"along-{name}",
                    "run",
                    "twines",
                    row.key,
                    ((0.0, y, at), (end, y, at)),
                    round(_SLACK * end + 0.3, 3),
                    max(row.d, 0.002),
                )
            )
    else:
        cane = tables.posts()[options.cane]
        members.append(
            Member(
                "along",
                "arm",
                "posts",
                cane.key,
                ((0.0, 0.0, at), (end, 0.0, at)),
                min(end, max(cane.lengths_m)),
                cane.soil_width,
            )
        )
    stake = tables.posts()[options.end_stake]
    for name, x in (("first", 0.0), ("last", end)):
        line = ((x, 0.0, -options.end_depth), (x, 0.0, at + 0.05))
        members.append(
            Member(
                f"end-stake-{name}",
                "strut",
                "posts",
                stake.key,
                line,
                options.end_depth + at + 0.05,
                stake.soil_width,
            )
        )
    return members


def _plants(options: BrushwoodOptions, plantings: tuple[Planting, ...], width: float) -> tuple[Plant, ...]:
    """Return the plants: beside the sticks along the row, or inside the ring."""
    height = _height(options)
    if options.pattern != "ring":
        offset = _LINE + 0.03 if options.pattern == "crossed" else 0.05
        grown = plants.along(plantings, options.length, offset)
        return tuple(Plant(p.at, p.planting, (p.at, (p.at[0], p.at[1] * 0.2, height))) for p in grown)
    radius = max(min(options.length, width) / 2 - 0.08, 0.03)
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    way, set_out = (1.0 if plantings[0].side == "left" else -1.0), []
    for n, index in enumerate(owners):
        angle = way * math.tau * (n + 0.5) / len(owners)
        at = (options.length / 2 + radius * math.cos(angle), radius * math.sin(angle), 0.0)
        set_out.append(Plant(at, index, (at, (at[0], at[1] * 0.7, height))))
    return tuple(set_out)
