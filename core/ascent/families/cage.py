"""Cage: a ring cage or a cylinder of mesh round each plant; alone, staked, or tied with its neighbours into a
raft.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment, footings, strings, tipping
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, section, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, keys, located
from ..path.loadpath import Arrow, Check, Link, Remark, Service, Strength
from ..patterns import plants, posts, pots
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_LAP = 0.15  # of a cylinder's seam [m], parts handbook 3.7
_ROUND = 8  # sides a ring is drawn with
_LINK, _KNOTS = (
    0.70,
    0.16,
)  # of twine for a link that goes twice round, at the least, and for its knots [m], parts handbook 3.7
_BRANCHES = 4.0  # that lie on a ring
_LEGGED = 0.002  # wire from which a cage stands on its own legs; finer netting is held by canes [m]
_FIXED = 0.10  # below the soil at which a thin leg in dug earth is fixed, at most [m], judgement


class CageOptions(Typed):
    """What must be decided of cages. Lengths in metres."""

    made: Literal["bought", "cut"] = choice("cages", "bought", asked=True)
    cage: Annotated[str, row_of("cages")] = item(
        "cages", "cages", "cage_mesh_conc_48", when=("made", ("bought",))
    )
    mesh: Annotated[str, row_of("meshes")] = item(
        "cages", "meshes", "mesh_conc_roll", when=("made", ("cut",))
    )
    diameter: float = measure(
        "cages", "length", 0.48, 0.25, 1.0, 0.01, tries=(0.1, 0.2), when=("made", ("cut",))
    )
    height: float = measure(
        "cages", "length", 1.5, 0.4, 1.8, 0.01, tries=(-0.15, -0.3), when=("made", ("cut",))
    )
    leg: float = measure("cages", "length", 0.15, 0.02, 0.4, 0.01, tries=(0.05, 0.1), when=("made", ("cut",)))
    length: float = measure("raft", "length", 3.6, 0.3, 30.0, 0.05, asked=True)
    rows: int = measure("raft", "count", 1, 1, 8, 1, asked=True)
    row_spacing: float = measure("raft", "length", 0.75, 0.3, 1.5, 0.01, asked=True)
    link: Literal["none", "row", "grid", "diagonal"] = choice("raft", "none")
    link_twine: Annotated[str, row_of("twines", "run")] = item(
        "raft", "twines", "sisal_2.5", "run", when=("link", ("row", "grid", "diagonal"))
    )
    link_height: float = measure(
        "raft", "length", 0.9, 0.3, 1.5, 0.01, when=("link", ("row", "grid", "diagonal")), asked=True
    )
    stakes: int = measure("stakes", "count", 0, 0, 3, 1, tries=(1, 2))
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "stakes", "posts", "rod_rebar_12", "stake", when=("stakes", ("1", "2", "3"))
    )
    depth: float = measure(
        "stakes", "length", 0.45, 0.15, 0.9, 0.01, tries=DEEPER, when=("stakes", ("1", "2", "3"))
    )
    setting: Literal["driven", "tamped"] = choice("stakes", "driven", when=("stakes", ("1", "2", "3")))
    above: Literal["none", "weave", "ring"] = choice("raft", "none", asked=True)


class _Caged(Stand[CageOptions]):
    """Everything the checks of a cage need, worked out once for its cases."""

    @cached_property
    def cage(self) -> rows.Cage:
        return _cage(self.options)

    @cached_property
    def stood(self) -> float:
        """Return the height of the cage above ground. [m]"""
        return self.cage.height_m - self.cage.leg_m

    @cached_property
    def stake(self) -> rows.Post:
        return tables.posts()[self.options.stake]

    @cached_property
    def deep(self) -> int:
        """Return how many cages stand one behind another as one stiff raft, whichever way the wind blows."""
        if self.options.link != "diagonal" or self.options.rows < 2:
            return 1
        per_row = max(math.ceil(len(self.geometry.plants) / self.options.rows), 1)
        return min(self.options.rows, per_row)

    @cached_property
    def apart(self) -> float:
        return min(self.options.row_spacing, max(p.spacing for p in self.structure.plantings))

    @cached_property
    def wind(self) -> face.FaceWind:
        mesh = wind.mesh_solidity(self.cage.wire, self.cage.along, self.cage.up)
        return face.wind_on_face(self.growths, mesh, 0.0, self.stood, self.cases, "round")

    @cached_property
    def force(self) -> Array:
        """Return the wind on one cage: a round body as wide as the cage or the plant that has outgrown it.
        [N]
        """
        wide = max(*(min(s.planting.spacing, s.crop.depth_m) for s in self.growths), self.cage.diameter_m)
        return np.asarray(self.wind.force * wide)

    @cached_property
    def pressing(self) -> Array:
        """Return the mass of a usual plant that always lies on its cage, (1, W, 1). [kg]"""
        total = np.zeros(self.season.weeks)
        for growth in self.growths:
            shoot = growth.shoot_kg / max(growth.crop.carried_share, 0.05) * tables.constant("shoot_on_rings")
            total = np.maximum(total, shoot + growth.fruit_kg * tables.constant("fruit_on_rings"))
        return np.asarray(total.reshape(1, -1, 1))

    @cached_property
    def weight(self) -> Strength:
        """Return the weight that keeps one cage down: its own and half of what lies on it, or all of that as
        one expects. [N]
        """
        on = tables.constant("gravity") * self.pressing
        own = tables.constant("gravity") * self.cage.kg
        return Strength(np.asarray(own + 0.5 * on), np.asarray(own + on))

    @cached_property
    def leaning(self) -> Array:
        """Return the moment of a plant that leans on its cage. [N·m]"""
        top = np.minimum(np.max([s.top for s in self.growths], axis=0), self.stood + 0.3)[None, :, None]
        return np.asarray(
            self.pressing
            * self.cases.crop
            * tables.constant("gravity")
            * tables.constant("static_lean")
            * top
            / 2
        )

    @cached_property
    def column(self) -> Array:
        """Return the overturning moment of one column of cages. [N·m]"""
        behind = 1.0 + tables.constant("follower") * (self.deep - 1)
        return np.asarray(behind * self.force * self.wind.height + self.deep * self.leaning)

    @cached_property
    def leg(self) -> tuple[float, float]:
        """Return the moment that one leg may be bent with, and the one it is expected to bear. [N·m]"""
        modulus = section.round_bar(self.cage.wire).Z
        return 0.6 * self.cage.yield_ * modulus, self.cage.median * modulus

    @cached_property
    def wired(self) -> bool:
        """Return whether its legs are the cage's own wires, pushed into the soil."""
        return self.cage.legs > 0 and self.cage.wire >= _LEGGED

    @cached_property
    def arm(self) -> float:
        """Return the distance from the middle of a column to its leeward edge. [m]"""
        return ((self.deep - 1) * self.apart + self.cage.diameter_m) / 2

    @cached_property
    def resting(self) -> Strength:
        """Return the moment that a column holds by weight, by its legs in the soil and by the roots of its
        plants. [N·m]

        Legs hold by friction as they are pulled out, or each as a little post as it is pushed aside,
        whichever is more.
        """
        each = tables.constant("wire_legs") * math.pi * self.cage.wire * self.cage.leg_m
        soil, height = tables.soils()[self.site.bed.soil], np.maximum(self.wind.height, 0.1)
        pulled = each * self.cage.legs / 2 * self.cage.diameter_m * self.cases.soil_strength(soil)
        stood = Strength(self.nothing, self.nothing)
        if self.wired:
            held = embedment.strength(
                self.ground, footings.wire_post(self.cage.wire), self.cage.leg_m, height, self.cases
            )
            bears = self.leg
            stood = Strength(
                np.asarray(self.cage.legs * np.minimum(held.allowed * height, bears[0])),
                np.asarray(self.cage.legs * np.minimum(held.median * height, bears[1])),
            )
        still, arm, deep = tables.constant("dead_weight"), self.arm, self.deep
        return Strength(
            np.asarray(
                deep
                * (
                    self.weight.allowed * arm / still
                    + np.maximum(pulled / still, stood.allowed)
                    + self.rooted.allowed
                )
            ),
            np.asarray(
                deep * (self.weight.median * arm + np.maximum(pulled, stood.median) + self.rooted.median)
            ),
        )

    @cached_property
    def tied_at(self) -> float:
        return max(tables.constant("cage_stake_tie") * self.stood, 0.2)

    @cached_property
    def staked(self) -> Strength:
        """Return the moment that the stakes of a column hold. [N·m]"""
        if not self.options.stakes:
            return Strength(self.nothing, self.nothing)
        height, count = np.full((1, 1, 1), self.tied_at), self.options.stakes * self.deep
        bears, soil = (
            bending.moments(self.stake),
            embedment.strength(self.ground, self.stake, self.options.depth, height, self.cases),
        )
        return Strength(
            np.asarray(np.minimum(soil.allowed * height, bears.allowed) * count),
            np.asarray(np.minimum(soil.median * height, bears.median) * count),
        )

    @cached_property
    def sheared(self) -> Strength:
        """Return the wind that pushes one cage over above its lowest ring, as designed for and as expected:
        less what stem and roots take. [N]
        """
        height = np.maximum(self.wind.height, 0.1)
        return Strength(*(np.asarray(np.maximum(self.force - each / height, 0.0)) for each in self.rooted))

    def _racks(self) -> Check:
        """Return the check of the legs below the lowest ring, which lean over together."""
        free = self.cage.up + min(self.cage.leg_m / 2, _FIXED)
        soil = embedment.strength(
            self.ground,
            footings.wire_post(self.cage.wire),
            self.cage.leg_m,
            np.full((1, 1, 1), free),
            self.cases,
        )
        on = self.pressing * self.cases.crop * tables.constant("gravity")
        return tipping.racks(
            self.cage, self.sheared, self.leg, Strength(soil.allowed * free, soil.median * free), free, on
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        rings, first = keys(self.geometry.by_role("ring")), self.geometry.by_role("ring")[0].points[0]
        branch = (
            self.pressing
            * self.cases.crop
            * tables.constant("gravity")
            / (self.cage.legs or 6)
            / 2
            * tables.constant("tie_uneven")
        )
        ringed = (
            tipping.ring(self.cage, branch, min(self.cage.along, 0.4)),
            *((self._racks(),) if self.wired and not self.options.stakes else ()),
        )
        hold = Strength(self.resting.allowed + self.staked.allowed, self.resting.median + self.staked.median)
        below = (
            "tipping",
            *(("link",) if self.deep > 1 else ()),
            *(("stake",) if self.options.stakes else ()),
        )
        edge = (first[0], first[1] + self.cage.diameter_m / 2, 0.0)
        centre = (first[0], first[1], float(self.stood) * tables.constant("cage_centre"))
        table = ("cages", self.cage.key) if self.options.made == "bought" else ("meshes", self.options.mesh)
        levers = ("stakes", "link", "depth", "stake", "diameter", "height", "cage")
        links = [
            Link("ring", rings, table, below, ("cage", "mesh"), branch * _BRANCHES, ringed),
            Link(
                "tipping",
                rings,
                None,
                ("pot",) if self.site.bed.kind == "container" else (),
                levers,
                self.force,
                (
                    tipping.cage(
                        self.column,
                        self.weight.allowed,
                        self.arm,
                        hold,
                        self.resting.allowed,
                        self.staked.allowed,
                        self.deep,
                    ),
                ),
                (Arrow(centre, (0.0, 1.0, 0.0)), Arrow(edge, (0.0, 0.0, 1.0))),
            ),
        ]
        if self.deep > 1:
            links.append(self._link())
        if self.options.stakes:
            links += self._stake()
        return (
            *links,
            *pots.link(
                self.site.bed,
                self.force * len(self.geometry.plants),
                np.asarray(self.wind.height),
                ("depth",),
            ),
        )

    def _link(self) -> Link:
        twine = tables.twines()[self.options.link_twine]
        tied = strings.twine_strength(twine, self.tied_on)
        passed = self.force * (self.deep - 1) / self.deep
        return Link(
            "link",
            keys(self.geometry.by_role("run")),
            ("twines", twine.key),
            ("tipping",),
            ("link_twine",),
            passed,
            (tipping.linked(Strength(2.0 * tied.allowed, 2.0 * tied.median), passed),),
        )

    def _stake(self) -> list[Link]:
        """Return the stakes: what a column does not hold by itself, its stakes take at the height of their
        ties.
        """
        count = self.options.stakes * self.deep
        taken, usual = (np.maximum(self.column - each, 0.0) / count / self.tied_at for each in self.resting)
        height = np.full((1, 1, 1), self.tied_at)
        members = keys(self.geometry.by_role("post"))
        bent = bending.post_across(self.stake, taken, height, np.ones((1, 1, 1)))
        grip = self.soil_grip(self.stake, self.options.depth, taken, height, ("depth", "stakes", "stake"))
        return [
            Link(
                "stake",
                members,
                ("posts", self.stake.key),
                ("soil",),
                ("stake", "stakes"),
                taken,
                (replace(bent, expected=usual * self.tied_at),),
            ),
            replace(grip, checks=tuple(replace(check, expected=usual) for check in grip.checks)),
        ]

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the cage's top: nothing until it tips, or what its stake gives."""
        lean = self.nothing + 0.0 * self.force
        if self.options.stakes:
            resting = self.weight.allowed * self.cage.diameter_m / 2
            taken = (
                np.maximum(self.force * self.wind.height + self.leaning - resting, 0.0)
                / self.tied_at
                / self.options.stakes
            )
            give = posts.lean_per_force(
                self.stake,
                self.ground,
                self.options.depth,
                np.full((1, 1, 1), self.tied_at),
                np.full((1, 1, 1), 0.01),
                self.stood,
                self.cases,
            )
            lean = np.minimum(taken * give, self.stood)
        return (
            Service(
                "lean",
                lean,
                self.stood / tables.constant("sway_limit") * 3,
                "handbook-10.2",
                ("stakes", "stake", "depth"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the moment of wind and lean on all cages of a column, and what the link that keeps it from
        tipping is asked for. [N·m]
        """
        behind = 1.0 + tables.constant("follower") * (self.deep - 1)
        tips = next(link for link in self.path() if link.key == "tipping")
        return behind * self.force * self.wind.height + self.deep * self.leaning, tips.checks[0].demand


class Cages(Family[CageOptions]):
    """A cage a plant."""

    key: ClassVar[str] = "cage"
    round: ClassVar[bool] = True
    options = CageOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return cages for a crop on a bed, every value with its reason."""
        crop = tables.crops()[need.crop]
        small = crop.shoot_kg < 1.0
        row = plants.sown(need, site, longest=30.0, shortest=0.3, spacing=max(crop.spacing_m, 0.45))
        two = need.side == "both" and site.bed.width >= 1.0
        deepest = site.bed.raised_by - 0.02 if site.bed.kind == "container" else 0.9
        depth = max(min(max(0.45, math.ceil((site.bed.raised_by + 0.30) * 20) / 20), deepest), 0.15)
        cage = "cage_ring_heavy" if small else "cage_mesh_conc_57"
        options = CageOptions(
            cage=cage,
            length=row.length,
            rows=2 if two else 1,
            row_spacing=0.75,
            link="diagonal" if two else "none",
            stakes=0 if small else 1,
            depth=depth,
        )
        reasons = {
            **row.reasons,
            "made": Reason("made"),
            "cage": Reason("cage_small" if small else "cage", words={"crop": crop.name}),
            "rows": Reason("cage_rows", {"rows": (options.rows, "count")}),
            "row_spacing": Reason("row_spacing", {"spacing": (0.75, "length")}),
            "link": Reason("link_raft" if two else "link"),
            "stakes": Reason("no_stake" if small else "one_stake"),
            "above": Reason("above"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: CageOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return cages, stakes, links and plants in metres."""
        row, stake = _cage(options), tables.posts()[options.stake]
        grown, members = _grid(options, plantings), []
        stood = row.height_m - row.leg_m
        top = max(posts.stock_length(stake, options.depth + stood * 0.75) - options.depth, 0.1)
        for n, plant in enumerate(grown):
            members.append(_drawn(options, row, n + 1, plant.at))
            for k in range(options.stakes):
                angle = 2 * math.pi * k / options.stakes + math.pi / 2
                side = -1.0 if plantings[0].side == "right" else 1.0
                x, y = (
                    plant.at[0] + 0.45 * row.diameter_m * math.cos(angle),
                    plant.at[1] + side * 0.45 * row.diameter_m * math.sin(angle),
                )
                members += posts.standing(
                    stake,
                    n * options.stakes + k + 1,
                    (x, y, -options.depth),
                    (x, y, min(top, stood + 0.1)),
                    top + options.depth,
                )
        members += _links(options, grown)
        first = grown[0].at
        dimensions = [
            Dimension("options.length", "elevation", (0, 0, 0), (options.length, 0, 0), options.length, -0.8),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        ]
        if options.made == "cut":
            half = options.diameter / 2
            dimensions.append(
                Dimension(
                    "options.diameter",
                    "elevation",
                    (first[0] - half, 0, stood),
                    (first[0] + half, 0, stood),
                    options.diameter,
                    0.5,
                )
            )
            dimensions.append(
                Dimension(
                    "options.height",
                    "elevation",
                    (first[0] - half, 0, -options.leg),
                    (first[0] - half, 0, stood),
                    options.height,
                    -0.6,
                )
            )
        if options.stakes:
            dimensions.append(
                Dimension(
                    "options.depth",
                    "elevation",
                    (first[0], 0, -options.depth),
                    (first[0], 0, 0),
                    options.depth,
                    -0.6,
                )
            )
        if options.rows > 1:
            edge = -(options.rows - 1) * options.row_spacing / 2
            dimensions.append(
                Dimension(
                    "options.row_spacing",
                    "end",
                    (0, edge, 0),
                    (0, edge + options.row_spacing, 0),
                    options.row_spacing,
                    -0.6,
                )
            )
        depth = max(options.depth if options.stakes else 0.0, row.leg_m)
        supplies = (
            (Supply("upper-weave", "twines", options.link_twine, 2, 2.1 * options.length),)
            if options.above == "weave"
            else ()
        )
        return Geometry(
            located(members),
            grown,
            tuple(dimensions),
            supplies,
            options.length,
            stood,
            depth,
            climb=stood + 0.1,
        )

    def loaded(
        self, options: CageOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Caged:
        """Return the cages under the loads of the cases."""
        return _Caged(options, geometry, structure, site, cases)

    def remarks(
        self, options: CageOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: light wire, an outgrown cage, links that only seem to hold."""
        row = _cage(options)
        remarks = fits.of_ground(site.bed, options.length, options.depth if options.stakes else 0.0)
        if options.link in ("row", "grid"):
            remarks.append(Remark("link-racks", "watch", source="handbook-10.3", levers=("link",)))
        if options.link != "none" and options.rows == 1:
            remarks.append(Remark("link-one-row", "watch", source="handbook-10.3", levers=("stakes", "link")))
        if not options.stakes and options.link != "diagonal":
            remarks.append(Remark("cage-alone", "watch", source="handbook-10.1", levers=("stakes", "link")))
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            remarks += [*fits.of_suit(planting, self.key)]
            if planting.spacing < row.diameter_m - 0.02:
                values = {"spacing": (planting.spacing, "length"), "wide": (row.diameter_m, "length")}
                remarks.append(
                    Remark(
                        "cages-touch",
                        "wrong",
                        values,
                        source="handbook-parts-3.7",
                        levers=(planting.path("spacing"), "diameter"),
                    )
                )
            per_row = math.ceil(planting.count / options.rows)
            if (per_row - 1) * planting.spacing > options.length + 1e-6:
                values = {
                    "count": (float(planting.count), "count"),
                    "row": ((per_row - 1) * planting.spacing, "length"),
                    "length": (options.length, "length"),
                }
                remarks.append(
                    Remark(
                        "crowded-row",
                        "wrong",
                        values,
                        {"crop": crop.name},
                        "crops-3",
                        ("length", planting.path("count")),
                    )
                )
            if crop.height_m > geometry.top + 0.3:
                values = {"vine": (crop.height_m, "length"), "top": (geometry.top, "length")}
                remarks.append(
                    Remark(
                        "cage-outgrown",
                        "watch",
                        values,
                        {"crop": crop.name},
                        "handbook-parts-3.7",
                        ("above", "height"),
                    )
                )
            if row.wire <= 0.003 and crop.shoot_kg >= 1.2 and row.along > 0.2:
                remarks.append(
                    Remark(
                        "cage-light",
                        "watch",
                        {"wire": (row.wire, "wire")},
                        {"crop": crop.name},
                        "crops-2",
                        ("cage",),
                    )
                )
        if min(row.along, row.up) - row.wire < 0.1:
            remarks.append(
                Remark(
                    "hand-no",
                    "watch",
                    {"clear": (min(row.along, row.up) - row.wire, "length")},
                    source="crops-5.6",
                    levers=("cage", "mesh"),
                )
            )
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of cages."""
        cautions = ["services", "driving"] if geometry.by_role("post") else []
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "cut-ends", "judgement")


def _cage(options: CageOptions) -> rows.Cage:
    """Return the cage that was bought, or what is cut from a roll."""
    if options.made == "bought":
        return tables.cages()[options.cage]
    mesh = tables.meshes()[options.mesh]
    around = math.pi * options.diameter + _LAP
    return rows.Cage(
        mesh.key,
        mesh.source,
        mesh.certainty,
        mesh.name,
        mesh.wire,
        options.height,
        options.diameter,
        options.leg,
        max(round(math.pi * options.diameter / mesh.along), 3),
        mesh.along,
        mesh.up,
        mesh.kg_m2 * around * options.height,
        tables.mesh_materials()[mesh.material].yield_,
        tables.mesh_materials()[mesh.material].median_yield,
        mesh.life_dry,
        mesh.life_wet,
        mesh.price_m2 * around * options.height,
    )


def _grid(options: CageOptions, plantings: tuple[Planting, ...]) -> tuple[Plant, ...]:
    """Return the plants in their rows, as evenly filled as they go, one planting after the other."""
    order = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    apart, per_row = max(planting.spacing for planting in plantings), math.ceil(len(order) / options.rows)
    side = -1.0 if plantings[0].side == "right" else 1.0
    start, places = (options.length - (per_row - 1) * apart) / 2, []
    for n, index in enumerate(order):
        row, place = divmod(n, per_row)
        y = side * (row * options.row_spacing - (options.rows - 1) * options.row_spacing / 2)
        places.append(Plant((start + place * apart, y, 0.0), index))
    return tuple(places)


def _drawn(options: CageOptions, row: rows.Cage, number: int, at: Point) -> Member:
    """Return a cage with its rings and uprights."""
    x, y, _ = at
    stood, half = row.height_m - row.leg_m, row.diameter_m / 2
    rings = max(min(round(stood / row.up), 8), 2)
    angles = np.linspace(0, 2 * math.pi, _ROUND + 1)
    lines: list[tuple[Point, ...]] = [
        tuple((x + half * math.cos(a), y + half * math.sin(a), z) for a in angles)
        for z in np.linspace(stood / rings, stood, rings).tolist()
    ]
    uprights = max(min(row.legs or 8, 10), 3)
    for a in np.linspace(0, 2 * math.pi, uprights, endpoint=False):
        px, py = x + half * math.cos(a), y + half * math.sin(a)
        lines.append(((px, py, -row.leg_m), (px, py, stood)))
    corners = ((x, y, 0.0), (x, y, stood))
    if options.made == "bought":
        return Member(
            f"cage-{number}", "ring", "cages", row.key, corners, 0.0, row.wire, "wires", lines=tuple(lines)
        )
    around = math.pi * options.diameter + _LAP
    return Member(
        f"cage-{number}",
        "ring",
        "meshes",
        options.mesh,
        corners,
        around,
        row.wire,
        "wires",
        lines=tuple(lines),
    )


def _links(options: CageOptions, grown: tuple[Plant, ...]) -> list[Member]:
    """Return the links of a raft: along the rows, between them, and across its cells."""
    if options.link == "none":
        return []
    per_row = math.ceil(len(grown) / options.rows)
    at = {divmod(n, per_row): plant.at for n, plant in enumerate(grown)}
    steps = (
        [(0, 1)]
        + ([(1, 0)] if options.link in ("grid", "diagonal") else [])
        + ([(1, 1)] if options.link == "diagonal" else [])
    )
    members: list[Member] = []
    wide = _cage(options).diameter_m
    for (row, place), (x, y, _) in at.items():
        for down, along in steps:
            other = at.get((row + down, place + along))
            if other:
                ends = ((x, y, options.link_height), (other[0], other[1], options.link_height))
                members.append(
                    Member(
                        f"link-{len(members) + 1}",
                        "run",
                        "twines",
                        options.link_twine,
                        ends,
                        max(2 * (math.dist(*ends) - wide) + _KNOTS, _LINK),
                        0.003,
                    )
                )
    return members
