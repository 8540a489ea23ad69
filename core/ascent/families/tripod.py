"""Tripod: three poles or more tied at the top, in a bed or a container, with strings round them or twine
laced between.
"""

from __future__ import annotations

import math
from functools import cached_property
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, legs, strings
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import crop, face
from ..loads.cases import Cases
from ..mechanics import Array, splay, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, located
from ..path.loadpath import Link, Remark, Service, Strength
from ..patterns import plants, posts, pots, splayed
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits

_OUTSIDE = 0.05  # of a plant from its pole [m], parts handbook 3.4
_FIRST_RING = 0.3  # above the soil [m]
_TURN = 0.10  # of twine round a pole [m], parts handbook 3.4
_STEEP = 10.0  # from upright, below which the base is narrow [degrees], parts handbook 3.4
_ROOM = 0.45  # to walk between two sets [m], parts handbook 4.1
_TALL = 1.9  # where poles meet and a hand still ties them [m], parts handbook 3.5
_LACE = 0.20  # between the turns of laced twine [m]


class TripodOptions(Typed):
    """What must be decided of tripods. Lengths in metres."""

    sets: int = measure("row", "count", 1, 1, 12, 1, asked=True)
    set_spacing: float = measure(
        "row", "length", 1.5, 0.4, 3.0, 0.05, when=("sets", tuple(map(str, range(2, 13)))), asked=True
    )
    legs: int = measure("poles", "count", 4, 3, 8, 1, tries=(1, 2))
    pole: Annotated[str, row_of("posts", "pole")] = item("poles", "posts", "cane_20", "pole")
    pole_length: float = measure("poles", "length", 2.4, 0.9, 3.6, 0.01, tries=(-0.2, -0.4), asked=True)
    radius: float = measure("poles", "length", 0.5, 0.08, 0.9, 0.01, tries=(0.1, 0.2))
    post_age: int = measure("poles", "count", 0, 0, 15, 1, asked=True)
    in_soil: float = measure("poles", "length", 0.30, 0.05, 0.9, 0.01, tries=DEEPER)
    held: Literal["soil", "rim"] = choice("feet", "soil")
    tail: float = measure("poles", "length", 0.20, 0.05, 0.6, 0.01, asked=True)
    crossing: splayed.Joint = choice("binding", "lashed")
    binding: Annotated[str, row_of("twines", "run")] = item(
        "binding", "twines", "sisal_2.5", "run", when=("crossing", ("lashed", "notched"))
    )
    rings: int = measure("rings", "count", 3, 0, 8, 1, asked=True)
    ring_step: float = measure(
        "rings", "length", 0.5, 0.15, 1.0, 0.01, when=("rings", tuple(map(str, range(1, 9)))), asked=True
    )
    laced: Literal["none", "panels"] = choice("rings", "none", asked=True)
    spare: int = measure("rings", "count", 0, 0, 6, 1, when=("laced", ("panels",)), asked=True)
    ring_twine: Annotated[str, row_of("twines", "run")] = item("rings", "twines", "jute_3", "run")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("rings", "ties", "twine_jute_3_loop", "stem")
    centre: Literal["none", "stake"] = choice("feet", "none")
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "feet", "posts", "rod_rebar_12", "stake", when=("centre", ("stake",))
    )
    stake_depth: float = measure(
        "feet", "length", 0.6, 0.2, 1.0, 0.01, tries=DEEPER, when=("centre", ("stake",))
    )


class _Standing(Stand[TripodOptions]):
    """Everything the checks of a tripod need, worked out once for its cases."""

    @cached_property
    def height(self) -> float:
        return _height(self.options)

    @cached_property
    def shares(self) -> tuple[float, ...]:
        """Return how many plants of each planting climb the fullest set."""
        return tuple(
            float(math.ceil(planting.count / self.options.sets)) for planting in self.structure.plantings
        )

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of the poles of one set. [N]"""
        count = self.options.legs + _spares(self.options)
        return (
            count
            * tables.posts()[self.options.pole].kg_m
            * self.options.pole_length
            * tables.constant("gravity")
        )

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on one set. [N]"""
        total, area = self.nothing, self.options.legs * self.height * self.options.radius
        for growth, share in zip(self.growths, self.shares, strict=True):
            total = total + crop.group_weight(growth, share, area, self.cases.crop)
        return np.asarray(total)

    @cached_property
    def shoot(self) -> Array:
        """Return the weight of usual shoots on one set, which is always there, (1, W, 1). [N]"""
        total = sum(
            (s.shoot_kg * share for s, share in zip(self.growths, self.shares, strict=True)),
            np.zeros(self.season.weeks),
        )
        return np.asarray(tables.constant("gravity") * total[None, :, None])

    @cached_property
    def face(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.height, self.cases, "round")

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one set and where it acts, [N] and [m]."""
        post, options = tables.posts()[self.options.pole], self.options
        on_poles = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * post.soil_width
            * self.height
            * options.legs
        )
        bottom = min(s.bottom for s in self.growths)
        wide = splay.ring_width(options.radius, options.legs)
        leafy = (bottom, bottom + self.face.leaf_height)
        return splayed.blown(self.face.pressure, leafy, wide, 2 * _OUTSIDE, self.height, np.asarray(on_poles))

    @cached_property
    def poles(self) -> splayed.Splayed:
        post, (force, lever) = (
            bending.after(tables.posts()[self.options.pole], self.options.post_age),
            self.blown,
        )
        resting = np.asarray(self.bare_weight + 0.5 * self.shoot)
        return splayed.Splayed(
            self.options.legs,
            self.options.radius,
            self.height,
            post,
            self.options.in_soil,
            self.hanging + self.bare_weight,
            resting,
            force,
            lever,
            self.rim,
            staked=self.staked,
        )

    @cached_property
    def rim(self) -> Strength:
        """Return what a foot's tie to the rim of its pot holds: twine taken round twice, (1, W, 1). [N]"""
        if self.options.held == "soil":
            return Strength(self.nothing, self.nothing)
        tied = strings.twine_strength(tables.twines()[self.options.binding], self.tied_on)
        return Strength(2.0 * tied.allowed, 2.0 * tied.median)

    @cached_property
    def staked(self) -> Strength:
        """Return the moment about the ground that a stake in the middle holds. [N·m]"""
        if self.options.centre == "none":
            return Strength(self.nothing, self.nothing)
        stake, (_, lever) = tables.posts()[self.options.stake], self.blown
        return legs.stood(stake, self.ground, self.options.stake_depth, lever, 1, self.cases)

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to ground."""
        pot = pots.link(self.site.bed, *self.blown, ("in_soil",))
        levers = {
            "pole": ("pole", "legs", "pole_length", "radius"),
            "lashing": ("crossing", "binding", "legs", "radius"),
            "feet": ("held", "in_soil", "radius", "legs", "centre", "pole", "pole_length"),
        }
        binding = (tables.twines()[self.options.binding], self.options.crossing)
        below = ("pot",) if pot else ()
        stems = self.stem_ties(self.options.stem_tie, self.face.pressure, self.face.leaf_height, "pole")
        return (*stems, *splayed.links(self, self.poles, binding, levers, below), *pot)

    def service(self) -> tuple[Service, ...]:
        """Return how far the top moves over."""
        return (splayed.lean(self, self.poles, ("radius", "in_soil", "centre")),)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind's moment on all sets that no stake takes, and what their feet make of it. [N·m]"""
        poles = self.poles
        return poles.force * poles.lever * self.options.sets, poles.taken * self.options.sets


class Tripod(Family[TripodOptions]):
    """Poles tied at the top."""

    key: ClassVar[str] = "tripod"
    round: ClassVar[bool] = True
    options = TripodOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return tripods for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        potted = bed.kind == "container"
        narrow = min(bed.width, bed.length) / 2
        radius = round(min(max(narrow - 0.05, 0.08), 0.5), 2)
        number = 3 if potted else 4
        room = bed.raised_by - 0.05 if potted else 0.9
        depth = max(min(0.25 if potted else 0.30 + bed.raised_by, room), 0.05)
        apart = round(max(2 * radius + _ROOM, 0.4), 2)
        most = min(max(math.floor((bed.length - 2 * radius) / apart + 1e-6) + 1, 1), 12)
        sets = 1 if potted else min(most, math.ceil(need.count / (2 * number))) if need.count else most
        wanted = min(plant.support_height_m, _TALL) + depth + 0.2
        post = "cane_20" if wanted <= 3.0 else "cane_25"
        lengths = [long for long in tables.posts()[post].lengths_m if long <= posts.LONGEST_POST]
        long = min((length for length in lengths if length >= wanted - 0.25), default=max(lengths))
        chord = round(max(2 * radius * math.sin(math.pi / number), 0.05), 2)
        row = plants.sown(need, site, longest=30.0, spacing=chord)
        count = need.count or min(sets * number, 600)
        planting = row.plantings[0].model_copy(update={"count": count})
        options = TripodOptions(
            sets=sets,
            set_spacing=apart,
            legs=number,
            pole=post,
            pole_length=long,
            radius=radius,
            in_soil=depth,
            held="rim" if potted else "soil",
        )
        reasons = {
            **row.reasons,
            planting.path("count"): Reason(
                "count_asked" if need.count else "count_poles", {"count": (count, "count")}
            ),
            planting.path("spacing"): Reason("spacing_poles", {"spacing": (chord, "length")}),
            "sets": Reason("sets", {"sets": (sets, "count"), "apart": (apart, "length")}),
            "legs": Reason("legs_pot" if potted else "legs"),
            "post_age": Reason("post_age"),
            "pole": Reason("pole", {"length": (long, "length")}, {"pole": tables.posts()[post].name}),
            "pole_length": Reason(
                "pole_length", {"support": (plant.support_height_m, "length"), "length": (long, "length")}
            ),
            "radius": Reason("radius_pot" if potted else "radius", {"radius": (radius, "length")}),
            "in_soil": Reason("depth_pot" if potted else "depth_poles", {"depth": (depth, "length")}),
            "held": Reason("held_rim" if potted else "held_soil"),
            "tail": Reason("tail"),
            "crossing": Reason("notched"),
            "rings": Reason("rings"),
            "laced": Reason("laced"),
            "ring_twine": Reason("twine"),
            "stem_tie": Reason("stem_tie"),
            "centre": Reason("centre"),
        }
        reasons.pop("length")
        return Proposal(options, (planting,), reasons)

    def geometry(self, options: TripodOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return poles, lashings, strings and plants in metres."""
        post, height, radius = tables.posts()[options.pole], _height(options), options.radius
        way = 1.0 if plantings[0].side == "left" else -1.0
        members: list[Member] = []
        spare = _spares(options)
        for n in range(options.sets):
            middle = _middle(options, n)
            feet = _feet(options, middle, way)
            number = n * (options.legs + spare) + 1
            for k, (foot, apex) in enumerate(feet):
                members += splayed.pole(post, number + k, foot, apex, options.in_soil, options.pole_length)
            for k in range(spare):
                angle = way * (math.pi / 2 + math.tau * (k + 0.5) / options.legs)
                foot = (middle + radius * math.cos(angle), radius * math.sin(angle), 0.0)
                members += splayed.pole(
                    post,
                    number + options.legs + k,
                    foot,
                    (middle, 0.0, height),
                    options.in_soil,
                    options.pole_length,
                )
            lashing = _lashing(post.soil_width, options.legs + spare)
            knot = ((middle, 0.0, height - 0.04), (middle, 0.0, height + 0.04))
            members.append(splayed.knot(n + 1, options.crossing, options.binding, knot, lashing))
            members += _strings(options, n, [foot for foot, _ in feet], (middle, 0.0, height))
            if options.centre == "stake":
                stake, tall = tables.posts()[options.stake], min(height, 1.5)
                long = posts.stock_length(stake, options.stake_depth + tall)
                low: Point = (middle, 0.0, -options.stake_depth)
                members.append(
                    Member(
                        f"stake-{n + 1}",
                        "strut",
                        "posts",
                        stake.key,
                        (low, (middle, 0.0, long - options.stake_depth)),
                        long,
                        stake.soil_width,
                    )
                )
        grown = _plants(options, plantings, way, height)
        first = _feet(options, _middle(options, 0), way)
        ties = plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned"))
        end = 2 * radius + (options.sets - 1) * (options.set_spacing if options.sets > 1 else 0.0)
        dimensions = (
            Dimension(
                "options.radius",
                "elevation",
                (radius, 0, -options.in_soil),
                (2 * radius, 0, -options.in_soil),
                radius,
                -0.5,
            ),
            Dimension(
                "options.in_soil", "elevation", (end, 0, -options.in_soil), (end, 0, 0), options.in_soil, 0.7
            ),
            *(
                (
                    Dimension(
                        "options.set_spacing",
                        "elevation",
                        (radius, 0, height),
                        (radius + options.set_spacing, 0, height),
                        options.set_spacing,
                        0.6,
                    ),
                )
                if options.sets > 1
                else ()
            ),
        )
        top = max(z for m in members if m.role == "post" for _, _, z in m.points)
        return Geometry(
            located(members),
            grown,
            dimensions,
            ties,
            end,
            top,
            options.in_soil,
            climb=height,
            unit=max(x for (x, _, _), _ in first) - min(x for (x, _, _), _ in first),
        )

    def loaded(
        self, options: TripodOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Standing:
        """Return the tripods under the loads of the cases."""
        return _Standing(options, geometry, structure, site, cases)

    def remarks(
        self, options: TripodOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: poles long enough, a base wide enough, a lashing that does not
        slide.
        """
        row = tables.posts()[options.pole]
        remarks = fits.of_ground(site.bed, geometry.length, options.in_soil, ("sets", "in_soil"))
        remarks += fits.of_stock(row, options.pole_length, ("pole", "pole_length"))
        lean = math.degrees(math.atan2(options.radius, _height(options)))
        if lean < _STEEP:
            values = {"lean": (lean, "angle"), "radius": (options.radius, "length")}
            remarks.append(
                Remark(
                    "poles-steep",
                    "watch",
                    values,
                    source="handbook-parts-3.4",
                    levers=("radius", "pole_length"),
                )
            )
        if 2 * options.radius > site.bed.width + 1e-6:
            wide = {"wide": (2 * options.radius, "length"), "bed": (site.bed.width, "length")}
            remarks.append(
                Remark("poles-past-bed", "watch", wide, source="handbook-parts-3.4", levers=("radius",))
            )
        if options.sets > 1 and options.set_spacing < 2 * options.radius:
            apart = {"apart": (options.set_spacing, "length"), "wide": (2 * options.radius, "length")}
            remarks.append(
                Remark(
                    "sets-overlap",
                    "wrong",
                    apart,
                    source="handbook-parts-3.4",
                    levers=("set_spacing", "radius"),
                )
            )
        remarks += fits.of_lashing(row, options.crossing)
        if options.held == "rim" and site.bed.kind != "container":
            remarks.append(Remark("no-rim", "wrong", source="handbook-parts-4.9", levers=("held",)))
        if site.bed.kind == "container":
            remarks.append(Remark("pot-watered", "watch", source="handbook-parts-4.9", levers=("radius",)))
        per_pole = sum(p.count for p in structure.plantings) / (
            options.sets * (options.legs + _spares(options))
        )
        if per_pole > 2.01 and options.laced == "none":
            remarks.append(
                Remark(
                    "poles-crowded",
                    "watch",
                    {"count": (per_pole, "ratio")},
                    source="handbook-parts-3.4",
                    levers=("legs", "laced"),
                )
            )
        for planting in structure.plantings:
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_height(planting, geometry.climb, ("pole_length",)),
                *fits.of_tying(planting),
            ]
        remarks += fits.of_age(tables.posts()[options.pole], options.post_age, ("post_age", "pole"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of setting up poles."""
        cautions = ["services", "poles-eyes"]
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "climb", "judgement")


def _height(options: TripodOptions) -> float:
    """Return the height at which the poles meet. [m]"""
    long = options.pole_length - options.in_soil - options.tail
    return math.sqrt(max(long**2 - options.radius**2, 0.09))


def _middle(options: TripodOptions, number: int) -> float:
    return options.radius + number * options.set_spacing


def _spares(options: TripodOptions) -> int:
    """Return the poles between the legs that carry twine alone."""
    return min(options.spare, options.legs) if options.laced == "panels" else 0


def _feet(options: TripodOptions, middle: float, way: float) -> list[tuple[Point, Point]]:
    """Return the foot of each leg, and where it passes the others at the lashing."""
    width = tables.posts()[options.pole].soil_width
    ring = width / (2 * math.sin(math.pi / options.legs))
    feet: list[tuple[Point, Point]] = []
    for k in range(options.legs):
        angle = way * (math.pi / 2 + math.tau * k / options.legs)
        past = angle + way * math.radians(110)
        foot = (middle + options.radius * math.cos(angle), options.radius * math.sin(angle), 0.0)
        feet.append((foot, (middle + ring * math.cos(past), ring * math.sin(past), _height(options))))
    return feet


def _lashing(width: float, poles: int) -> float:
    """Return the twine of one lashing, 5 (2 n d + π d) + 0.6 (parts handbook 3.0). [m]"""
    return 5 * (2 * poles * width + math.pi * width) + 0.6


def _strings(options: TripodOptions, number: int, feet: list[Point], apex: Point) -> list[Member]:
    """Return the strings round a set, and the twine laced up between its legs."""
    members, height = [], apex[2]

    def at(foot: Point, z: float) -> Point:
        share = z / height
        return foot[0] + share * (apex[0] - foot[0]), foot[1] + share * (apex[1] - foot[1]), z

    for r in range(options.rings):
        z = _FIRST_RING + r * options.ring_step
        if z > height - 0.1:
            break
        ring = tuple(at(foot, z) for foot in (*feet, feet[0]))
        side = 2 * options.radius * (1 - z / height) * math.sin(math.pi / options.legs)
        long = options.legs * (side + _TURN) + 0.3
        members.append(
            Member(
                f"ring-{number + 1}-{r + 1}", "run", "twines", options.ring_twine, ring, round(long, 3), 0.003
            )
        )
    if options.laced == "panels":
        for k, foot in enumerate(feet):
            other, zs = feet[(k + 1) % len(feet)], np.arange(0.15, height - 0.2, _LACE).tolist()
            lace = tuple(at(foot if i % 2 == 0 else other, z) for i, z in enumerate(zs))
            if len(lace) > 1:
                long = sum(math.dist(a, b) for a, b in pairwise(lace)) + _TURN * len(lace)
                members.append(
                    Member(
                        f"lace-{number + 1}-{k + 1}",
                        "run",
                        "twines",
                        options.ring_twine,
                        lace,
                        round(long, 3),
                        0.003,
                    )
                )
    return members


def _plants(
    options: TripodOptions, plantings: tuple[Planting, ...], way: float, height: float
) -> tuple[Plant, ...]:
    """Return the plants, shared out over the sets, evenly round the feet of each, every one with its way
    up.
    """
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    grown = []
    for n in range(options.sets):
        mine = owners[n :: options.sets]
        middle, out = _middle(options, n), options.radius + _OUTSIDE
        for k, index in enumerate(mine):
            angle = way * (math.pi / 2 + math.tau * k / len(mine))
            at = (middle + out * math.cos(angle), out * math.sin(angle), 0.0)
            foot = (middle + options.radius * math.cos(angle), options.radius * math.sin(angle), 0.02)
            grown.append(Plant(at, index, (at, foot, (middle, 0.0, height))))
    return tuple(grown)
