"""Stake: one stake or post beside each plant, tied in as it grows; neighbours may be joined by a bar."""

from __future__ import annotations

import math
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, ties
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, column
from ..path.geometry import Dimension, Geometry, Member, Plant, Supply, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts, pots
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_FIRST_TIE = 0.25  # above the soil [m], parts handbook 3.6
_SPARE_TIES = 1.2  # ties used over a season over those that stand at its end, parts handbook 3.6


class StakeOptions(Typed):
    """What must be decided of a row of stakes. Lengths in metres."""

    length: float = measure("row", "length", 3.6, 0.3, 30.0, 0.05, asked=True)
    stake: Annotated[str, row_of("posts", "stake")] = item("stakes", "posts", "post_hw_stake_25", "stake")
    height: float = measure("stakes", "length", 1.3, 0.3, 2.4, 0.01, tries=(-0.1, -0.2), asked=True)
    post_age: int = measure("stakes", "count", 0, 0, 15, 1, asked=True)
    depth: float = measure("stakes", "length", 0.45, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: Literal["driven", "tamped"] = choice("stakes", "driven")
    offset: float = measure("stakes", "length", 0.08, 0.03, 0.6, 0.01, asked=True)
    set_late: int = measure("stakes", "count", 0, 0, 90, 1, asked=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ties", "ties", "twine_jute_3_loop", "stem")
    tie_step: float = measure("ties", "length", 0.25, 0.1, 0.5, 0.01, tries=(-0.05, -0.1))
    stems: int = measure("ties", "count", 1, 1, 4, 1, asked=True)
    bar: Literal["none", "bar"] = choice("bar", "none", asked=True)
    bar_wood: Annotated[str, row_of("posts", "rail")] = item(
        "bar", "posts", "cane_20", "rail", when=("bar", ("bar",))
    )
    bar_height: float = measure("bar", "length", 1.1, 0.3, 2.2, 0.01, when=("bar", ("bar",)), asked=True)


class _Staked(Stand[StakeOptions]):
    """Everything the checks of a stake need, worked out once for its cases."""

    @cached_property
    def stake(self) -> rows.Post:
        return bending.after(tables.posts()[self.options.stake], self.options.post_age)

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.height, self.cases, "round")

    @cached_property
    def width(self) -> float:
        """Return how wide the wind finds the largest plant: as wide as it grows, no wider than its neighbours
        let it. [m]
        """
        return max(min(s.planting.spacing, s.crop.depth_m) for s in self.growths)

    @cached_property
    def force(self) -> Array:
        """Return the wind on one plant that comes on its stake: an upright plant holds half of itself. [N]"""
        return np.asarray(self.borne * self.wind.force * self.width)

    @cached_property
    def weight(self) -> Array:
        """Return what a good plant hangs on its stake. [N]"""
        heaviest = max(self.growths, key=lambda s: float(np.max(s.high_kg)))
        return self.plant_weight(heaviest)

    @cached_property
    def amplified(self) -> Array:
        critical = column.euler_load(bending.stiffness(self.stake), self.options.height, 2.1)
        return column.amplification(self.weight, critical)

    @cached_property
    def one_side(self) -> Array:
        """Return the moment of a plant that hangs beside its stake and leans; a bar shares it with the
        neighbours. [N·m]
        """
        top = np.minimum(np.max([s.top for s in self.growths], axis=0), self.options.height + 0.3)[
            None, :, None
        ]
        share = 0.5 if self.options.bar == "bar" else 1.0
        return np.asarray(
            self.borne
            * share
            * self.weight
            * (min(self.options.offset, 0.15) + 0.25 * tables.constant("static_lean") * top)
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        tie, tall = (
            tables.ties()[self.options.stem_tie],
            float(np.max([np.max(s.top) for s in self.growths])),
        )
        count = _ties_on_stem(self.options, tall)
        members, below = (
            keys(self.geometry.by_role("post")),
            ("pot",) if self.site.bed.kind == "container" else (),
        )
        height = np.asarray(self.wind.height)
        first = self.geometry.by_role("post")[0].points[1]
        side = (Arrow((first[0], first[1], min(self.options.height, 1.0)), (0.0, 1.0, 0.0)),)
        levers = ("stake", "depth", "height")
        hung = self.weight if self.borne == 1.0 else self.held_up(self.weight)
        links = (
            []
            if _winds(self.options)
            else [
                Link(
                    "stem-tie",
                    (),
                    ("ties", tie.key),
                    ("stake",),
                    ("stem_tie", "tie_step"),
                    np.hypot(hung, self.force),
                    (ties.stem_tie(tie, hung, self.force, count, self.tied_on),),
                )
            ]
        )
        links += [
            Link(
                "stake",
                members,
                ("posts", self.stake.key),
                ("soil",),
                levers,
                self.force,
                (
                    bending.post_across(self.stake, self.force, height, self.amplified),
                    bending.lasting(self.stake, self.one_side),
                ),
                side,
            ),
            self.soil_grip(
                self.stake,
                self.options.depth,
                self.force,
                height * self.amplified,
                ("depth", "stake", "height", "setting"),
                arrows=side,
                below=below,
            ),
        ]
        if self.options.bar == "bar":
            links.insert(1, self._bar())
        plants_ = len(self.geometry.plants)
        return (*links, *pots.link(self.site.bed, self.force * plants_, height, ("depth",)))

    def _bar(self) -> Link:
        """Return the bar: it carries half of what one plant's stake should, if that stake is loose."""
        wood = tables.posts()[self.options.bar_wood]
        gap = max(s.planting.spacing for s in self.growths)
        return Link(
            "bar",
            keys(self.geometry.by_role("rail")),
            ("posts", wood.key),
            ("stake",),
            ("bar_wood",),
            self.force / 2,
            (bending.rail(wood, np.zeros((1, 1, 1)), self.force / 2 / gap, gap),),
        )

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the stake's top."""
        lean = self.force * posts.lean_per_force(
            self.stake,
            self.ground,
            self.options.depth,
            self.wind.height,
            self.wind.leaf_height / 2,
            self.options.height,
            self.cases,
        )
        return (
            Service(
                "lean",
                np.minimum(lean, self.options.height),
                self.options.height / tables.constant("sway_limit"),
                "handbook-4.2",
                ("stake", "depth"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the share of the wind across all plants that they do not hold themselves, and what bends
        their stakes. [N]
        """
        bent = next(link for link in self.path() if link.key == "stake").checks[0]
        each, _ = bent.terms["force"]
        return self.borne * self.wind.force * self.width * len(self.geometry.plants), np.asarray(
            each * len(self.geometry.by_role("post"))
        )


class Stake(Family[StakeOptions]):
    """One stake a plant."""

    key: ClassVar[str] = "stake"
    round: ClassVar[bool] = True
    options = StakeOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return stakes for a crop on a bed, every value with its reason."""
        row = plants.sown(need, site, longest=30.0, shortest=0.3)
        crop, fill = row.crop, site.bed.raised_by
        height = round(min(max(crop.support_height_m - 0.1, 0.5), tables.constant("reach")) * 20) / 20
        deepest = fill - 0.02 if site.bed.kind == "container" else 1.2
        depth = max(min(max(0.45, math.ceil((fill + 0.30) * 20) / 20), deepest), 0.15)
        wanted = ["post_hw_stake_25", "post_hw_stake_38", "tpost_2.1", "tpost_2.4"][
            int(crop.shoot_kg >= 1.2) :
        ]
        stake = next(
            (key for key in wanted if max(tables.posts()[key].lengths_m) >= depth + height - 0.03), wanted[-1]
        )
        longest = max(length for length in tables.posts()[stake].lengths_m if length <= posts.LONGEST_POST)
        height = max(min(height, math.floor((longest - depth) * 20 + 1e-6) / 20), 0.3)
        options = StakeOptions(
            length=row.length,
            stake=stake,
            height=height,
            depth=depth,
            stems=1 if need.training == "pruned" else 3,
        )
        reasons = {
            **row.reasons,
            "post_age": Reason("post_age"),
            "stake": Reason(
                "stake_stout" if stake != "post_hw_stake_25" else "stake",
                {"needed": (depth + height, "length")},
                {"stake": tables.posts()[stake].name},
            ),
            "height": Reason(
                "stake_height", {"support": (crop.support_height_m, "length"), "height": (height, "length")}
            ),
            "depth": Reason(
                "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
            ),
            "setting": Reason("setting"),
            "offset": Reason("offset"),
            "set_late": Reason("set_late"),
            "stem_tie": Reason("stem_tie"),
            "tie_step": Reason("tie_step", {"step": (options.tie_step, "length")}),
            "stems": Reason("stems_pruned" if options.stems == 1 else "stems_free"),
            "bar": Reason("bar"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: StakeOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return stakes, plants and any bar in metres."""
        row, grown = tables.posts()[options.stake], _plants(options, plantings)
        bought = posts.stock_length(row, options.depth + options.height)
        top, members = max(bought - options.depth, 0.1), []
        top = min(top, max(options.height, 0.1) + 0.3)
        for n, plant in enumerate(grown):
            side = -1.0 if plant.at[1] < 0 or plantings[plant.planting].side == "right" else 1.0
            x, y = plant.at[0], plant.at[1] + side * options.offset
            members += posts.standing(row, n + 1, (x, y, -options.depth), (x, y, top), bought)
        if options.bar == "bar":
            members += _bars(options, members)
        count = sum(
            math.ceil(
                _ties_on_stem(options, tables.crops()[p.crop].height_m)
                * options.stems
                * p.count
                * _SPARE_TIES
            )
            for p in plantings
        )
        first = members[0].points[0]
        dimensions = (
            Dimension(
                "options.length",
                "elevation",
                (0, 0, -options.depth),
                (options.length, 0, -options.depth),
                options.length,
                -0.6,
            ),
            Dimension(
                "options.height",
                "elevation",
                (options.length, 0, 0),
                (options.length, 0, options.height),
                options.height,
                0.9,
            ),
            Dimension(
                "options.depth",
                "elevation",
                (first[0], 0, -options.depth),
                (first[0], 0, 0),
                options.depth,
                -0.9,
            ),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        ties_ = () if _winds(options) else (Supply("stem-ties", "ties", options.stem_tie, count),)
        return Geometry(
            located(members),
            grown,
            dimensions,
            ties_,
            options.length,
            top,
            options.depth,
            climb=options.height,
        )

    def loaded(
        self, options: StakeOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Staked:
        """Return the stakes under the loads of the cases."""
        return _Staked(options, geometry, structure, site, cases)

    def remarks(
        self, options: StakeOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: stakes too short, set too late, too near living roots."""
        row = tables.posts()[options.stake]
        remarks = fits.of_ground(site.bed, options.length, options.depth)
        longest = max(length for length in row.lengths_m if length <= posts.LONGEST_POST)
        if longest < options.depth + options.height - 0.05:
            values = {"long": (longest, "length"), "needed": (options.depth + options.height, "length")}
            remarks.append(
                Remark(
                    "stake-short",
                    "wrong",
                    values,
                    {"stake": row.name},
                    "handbook-parts-2.1",
                    ("stake", "height", "depth"),
                )
            )
        keep = min(0.10 + 0.0075 * options.set_late, 0.45)
        if options.set_late > 0 and options.offset < keep:
            values = {
                "keep": (keep, "length"),
                "days": (options.set_late, "count"),
                "offset": (options.offset, "length"),
            }
            remarks.append(
                Remark(
                    "roots-cut",
                    "wrong" if options.set_late > 14 else "watch",
                    values,
                    source="handbook-parts-4.11",
                    levers=("offset", "set_late"),
                )
            )
        if site.bed.kind == "container":
            remarks.append(Remark("pot-rim", "watch", source="handbook-10.4", levers=("depth",)))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            remarks += [*fits.of_suit(planting, self.key), *fits.of_row(planting, options.length)]
            remarks += fits.of_height(planting, options.height, ("height",))
            if _winds(options):
                remarks.append(
                    Remark(
                        "spiral-winds",
                        "watch",
                        words={"crop": crop.name},
                        source="handbook-parts-2.1",
                        levers=("stake",),
                    )
                )
            elif crop.training in ("TIE", "STAKE", "STALK"):
                remarks.append(Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4"))
        if row.material == "bamboo" and any(
            tables.crops()[p.crop].shoot_kg >= 1.2 for p in structure.plantings
        ):
            remarks.append(
                Remark(
                    "cane-slips",
                    "watch",
                    words={"stake": row.name},
                    source="handbook-parts-2.1",
                    levers=("stake",),
                )
            )
        remarks += fits.of_age(tables.posts()[options.stake], options.post_age, ("post_age", "stake"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of staking."""
        cautions = ["services", "driving"]
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "judgement")


def _plants(options: StakeOptions, plantings: tuple[Planting, ...]) -> tuple[Plant, ...]:
    """Return the plants: one line under the row, or two lines as far apart as the plants of a line."""
    apart = max(p.spacing for p in plantings) / 2 if any(p.side == "both" for p in plantings) else 0.0
    return plants.along(plantings, options.length, max(apart, 0.0))


def _winds(options: StakeOptions) -> bool:
    """Return whether the stem is wound up a spiral and takes no ties."""
    return "winds" in tables.posts()[options.stake].roles


def _ties_on_stem(options: StakeOptions, tall: float) -> int:
    """Return the ties of one stem that has grown so tall (parts handbook 3.6)."""
    return max(math.floor((min(tall, options.height) - _FIRST_TIE) / options.tie_step + 1e-6), 0) + 1


def _bars(options: StakeOptions, growth: list[Member]) -> list[Member]:
    """Return a bar along each line of stakes."""
    wood, members = tables.posts()[options.bar_wood], []
    lines = sorted({m.points[0][1] for m in growth if m.role == "post"})
    for n, y in enumerate(lines):
        xs = sorted(m.points[0][0] for m in growth if m.role == "post" and m.points[0][1] == y)
        if len(xs) > 1:
            line = ((xs[0] - 0.1, y, options.bar_height), (xs[-1] + 0.1, y, options.bar_height))
            members.append(
                Member(f"bar-{n + 1}", "rail", "posts", wood.key, line, xs[-1] - xs[0] + 0.2, wood.soil_width)
            )
    return members
