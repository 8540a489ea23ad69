"""Crossed poles: a row of poles crossed in pairs with a ridge in their V, canes or strings between; of tube
for good.
"""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment, tension
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, keys, located
from ..path.loadpath import Arrow, Check, Link, Remark, Service
from ..patterns import plants, posts, splayed
from ..patterns import strings as hung
from ..patterns.end_assembly import EndAssembly, loaded_line, pushed_along
from ..patterns.stand import Bays
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_OUTSIDE = 0.05  # of a plant from its pole [m], parts handbook 3.5
_LASH = 10.0  # lengths of twine per width of both poles of a square lashing, parts handbook 3.0
_LASH_ENDS = 0.4  # of twine at its ends [m], parts handbook 3.0
_OVERHANG = 0.2  # of the ridge past the end pairs [m], parts handbook 3.5
_TALL = 1.9  # where poles cross and a hand still ties them [m], parts handbook 3.5


class CrossedPolesOptions(Typed):
    """What must be decided of crossed poles. Lengths in metres."""

    length: float = measure("row", "length", 3.0, 0.3, 20.0, 0.05, asked=True)
    pair_spacing: float = measure("row", "length", 0.30, 0.15, 2.4, 0.01, tries="bays")
    spread: float = measure("poles", "length", 0.60, 0.3, 1.2, 0.01, tries=(0.1, 0.2, 0.3))
    pole: Annotated[str, row_of("posts", "pole")] = item("poles", "posts", "cane_16", "pole")
    pole_length: float = measure("poles", "length", 2.4, 1.2, 3.6, 0.01, tries=(-0.2, -0.4), asked=True)
    footing: Literal["soil", "concrete"] = choice("poles", "soil")
    post_age: int = measure("poles", "count", 0, 0, 15, 1, asked=True)
    in_soil: float = measure("poles", "length", 0.30, 0.1, 0.9, 0.01, tries=DEEPER)
    tail: float = measure("poles", "length", 0.20, 0.05, 0.5, 0.01, asked=True)
    crossing: splayed.Joint = choice("binding", "lashed")
    binding: Annotated[str, row_of("twines", "run")] = item(
        "binding", "twines", "sisal_2.5", "run", when=("crossing", ("lashed", "notched"))
    )
    ridge: Literal["none", "pole", "wire"] = choice("ridge", "pole")
    ridge_pole: Annotated[str, row_of("posts", "rail")] = item(
        "ridge", "posts", "cane_20", "rail", when=("ridge", ("pole",))
    )
    ridge_wire: Annotated[str, row_of("wires")] = item(
        "ridge", "wires", "wire_soft_125", when=("ridge", ("wire",))
    )
    between: Literal["poles", "strings"] = choice("ridge", "poles", asked=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "ridge", "twines", "sisal_2.5", "string", when=("between", ("strings",))
    )
    hung_by: Literal["knot", "hook"] = choice("ridge", "knot", when=("between", ("strings",)))
    hook: Annotated[str, row_of("fittings", "string-top")] = item(
        "ridge", "fittings", "hook_s_4", "string-top", when=("hung_by", ("hook",))
    )
    base: Annotated[str, row_of("fittings", "peg")] = item(
        "ridge", "fittings", "peg_wire", "peg", when=("between", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ridge", "ties", "twine_jute_3_loop", "stem")
    brace: Literal["none", "diagonal", "guy"] = choice("ends", "diagonal")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_14", when=("brace", ("diagonal", "guy"))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "anchor_screw_15x3", when=("brace", ("guy",))
    )


class _Crossed(Bays[CrossedPolesOptions]):
    """Everything the checks of crossed poles need, worked out once for its cases."""

    spaced_by = "pair_spacing"

    @cached_property
    def height(self) -> float:
        return _height(self.options)

    @cached_property
    def post(self) -> rows.Post:
        return bending.after(tables.posts()[self.options.pole], self.options.post_age)

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.height, self.cases)

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of a pair and its stretch of ridge. [N]"""
        ridge = (
            tables.posts()[self.options.ridge_pole].kg_m * self.carried
            if self.options.ridge == "pole"
            else 0.0
        )
        return (2 * self.post.kg_m * self.options.pole_length + ridge) * tables.constant("gravity")

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on a pair. [N]"""
        return self.crop_weight(self.xs, self.bay / 2, self.carried)

    @cached_property
    def shoot(self) -> Array:
        """Return the weight of usual shoots on a pair, which is always there, (1, W, 1). [N]"""
        share = self.carried / self.options.length
        total = sum(
            (s.shoot_kg * s.planting.count * share for s in self.growths), np.zeros(self.season.weeks)
        )
        return np.asarray(tables.constant("gravity") * total[None, :, None])

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind across the row on a pair and where it acts, [N] and [m]."""
        bare = (
            tables.constant("pole_drag")
            * wind.gust_pressure(self.cases.gust)
            * self.post.soil_width
            * 2
            * self.height
        )
        leafy = self.wind.force * self.carried
        lever = np.minimum(self.wind.height, self.height)
        return np.asarray(leafy + bare), np.asarray(
            (leafy * lever + bare * self.height / 2 + 1e-12) / (leafy + bare + 1e-12)
        )

    @cached_property
    def ground(self) -> embedment.Ground:
        return _ground_of(self.options, self.site)

    @cached_property
    def poles(self) -> splayed.Splayed:
        force, lever = self.blown
        resting = np.asarray(self.bare_weight + 0.5 * self.shoot)
        return splayed.Splayed(
            2,
            self.options.spread / 2,
            self.height,
            self.post,
            self.options.in_soil,
            self.hanging + self.bare_weight,
            resting,
            force,
            lever,
        )

    @cached_property
    def along(self) -> Array:
        """Return the wind along the row, brought to the ridge. [N]"""
        depth = max(float(np.max([s.crop.depth_m for s in self.growths])), 0.05)
        broad = max(self.options.spread / 2 / depth, 1.0)
        force = self.wind.end * broad + 2 * self.wind.skin * self.options.length
        return np.asarray(force * np.minimum(self.wind.height, self.height) / self.height)

    @cached_property
    def down(self) -> Array:
        """Return the crop that a metre of ridge carries where strings hang from it. [N/m]"""
        return np.asarray(self.hanging / self.carried)

    @cached_property
    def side(self) -> Array:
        """Return the wind that the strings hand to a metre of ridge. [N/m]"""
        return np.asarray(tables.constant("string_share") * self.wind.force)

    @cached_property
    def ends(self) -> EndAssembly:
        return _ends_of(self.options, self.site).standing(self.geometry)

    def _wire_pull(self, load: Array) -> Array:
        wire = tables.wires()[self.options.ridge_wire]
        return tension.wire_pull(
            wire, load, self.bay, self.ends.stiffness(self.height, self.cases), (len(self.xs) - 1) / 2
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to ground."""
        levers = {
            "pole": ("pole", "pair_spacing", "pole_length", "brace", "spread"),
            "lashing": ("crossing", "binding", "pair_spacing", "spread"),
            "feet": ("in_soil", "spread", "footing", "pair_spacing", "pole"),
        }
        binding = (tables.twines()[self.options.binding], self.options.crossing)
        stand = splayed.links(self, self.poles, binding, levers)
        if self.options.brace == "none":
            stand[0] = replace(stand[0], checks=(*stand[0].checks, self._racking()))
        return (*self._vines(), *stand, *self._along())

    def _vines(self) -> list[Link]:
        """Return the links above the poles: stem ties, or strings and the ridge they hang from."""
        if self.options.between == "poles":
            return self.stem_ties(self.options.stem_tie, self.wind.pressure, self.wind.leaf_height, "pole")
        twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
        stem = tables.ties()[self.options.stem_tie]
        hook = tables.fittings()[self.options.hook] if self.options.hung_by == "hook" else None
        to = "pole" if self.options.ridge == "none" else "ridge"
        strung = hung.string_links(
            self, self.wind.pressure, self.wind.leaf_height, twine, stem, hook, peg, to
        )
        return [*strung, *([self._ridge()] if self.options.ridge != "none" else [])]

    def _ridge(self) -> Link:
        middle = (Arrow((self.bay / 2, 0.0, self.height), (0.0, 0.0, -1.0)),)
        carries = np.hypot(self.down, self.side) * self.bay
        if self.options.ridge == "pole":
            row = tables.posts()[self.options.ridge_pole]
            return Link(
                "ridge",
                keys(self.geometry.by_role("rail")),
                ("posts", row.key),
                ("pole",),
                ("ridge_pole", "pair_spacing"),
                carries,
                (
                    bending.rail(row, self.down, self.side, self.bay),
                    bending.beam_lasting(row, self.down, self.bay),
                ),
                middle,
            )
        wire = tables.wires()[self.options.ridge_wire]
        pull = self._wire_pull(np.hypot(self.down, self.side))
        check = tension.main_wire(wire, self.down, self.side, self.bay, pull)
        return Link(
            "ridge",
            keys(self.geometry.by_role("wire")),
            ("wires", wire.key),
            ("pole", "end-post"),
            ("ridge_wire", "pair_spacing"),
            carries,
            (check,),
            middle,
        )

    def _racking(self) -> Check:
        count = 2 * len(self.xs)
        return bending.racking(
            self.post, self.along, self.height, count, (self.hanging + self.bare_weight) / 2
        )

    def _along(self) -> list[Link]:
        """Return what holds the row along itself: a diagonal at each end, or guys."""
        if self.options.brace == "diagonal":
            wire, run = tables.wires()[self.options.brace_wire], _run(self.options)
            tight = self.along / 2 * math.hypot(run, self.height) / run
            check = tension.brace_wire(wire, tight, self.along / 2)
            links = [
                Link(
                    "brace",
                    keys(self.geometry.by_role("guy")),
                    ("wires", wire.key),
                    ("feet",),
                    ("brace_wire",),
                    tight,
                    (check,),
                )
            ]
        else:
            links = []
        if self.options.brace != "guy" and self.options.ridge != "wire":
            return links
        lines = [pushed_along(self.height, self.along)] if self.options.brace == "guy" else []
        if self.options.ridge == "wire":
            load, still = np.hypot(self.down, self.side), self.down + 0.0 * self.side
            lines.append(
                loaded_line(
                    self.height,
                    self._wire_pull(load),
                    load,
                    self._wire_pull(still),
                    still,
                    self.bay,
                    (len(self.xs) - 1) / 2,
                )
            )
        return [*links, *self.ends.links(lines, self.nothing, np.full((1, 1, 1), self.height), self.cases)]

    def service(self) -> tuple[Service, ...]:
        """Return how far the ridge moves over, and how far it sags where strings hang from it."""
        services = [splayed.lean(self, self.poles, ("spread", "in_soil"))]
        if self.options.between == "strings" and self.options.ridge == "pole":
            sag = bending.beam_sag(tables.posts()[self.options.ridge_pole], self.down, self.bay)
            services.append(
                Service(
                    "ridge-sag",
                    sag,
                    self.bay / tables.constant("rail_sag_limit"),
                    "handbook-9.4",
                    ("ridge_pole", "pair_spacing"),
                )
            )
        return tuple(services)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind's moment on all pairs, and what their feet make of it. [N·m]"""
        pairs = max(len(self.xs) - 2, 0) + 1.0
        return self.poles.force * self.poles.lever * pairs, self.poles.taken * pairs


class CrossedPoles(Family[CrossedPolesOptions]):
    """Pairs of poles with a ridge."""

    key: ClassVar[str] = "crossed-poles"
    options = CrossedPolesOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return crossed poles for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        spread = round(min(max(bed.width - 0.1, 0.3), 0.6), 2)
        depth = round(
            min(0.30 + bed.raised_by, 0.9 if bed.kind != "container" else max(bed.raised_by - 0.05, 0.1)), 2
        )
        wanted = min(plant.support_height_m, _TALL) + depth + 0.2
        long = min((each for each in (1.8, 2.1, 2.4, 3.0) if each >= wanted - 0.1), default=3.0)
        pole = "cane_16" if long <= 2.4 else "cane_20"
        row = plants.sown(need, site, longest=20.0, shortest=0.3)
        apart = row.plantings[0].spacing
        spacing = round(min(max(apart, 0.20), 0.60, max(row.length, 0.15)), 2)
        options = CrossedPolesOptions(
            length=row.length,
            pair_spacing=spacing,
            spread=spread,
            pole=pole,
            pole_length=long,
            in_soil=depth,
            ridge_pole="cane_20",
        )
        reasons = {
            **row.reasons,
            "pair_spacing": Reason("pair_spacing", {"spacing": (spacing, "length")}),
            "spread": Reason("spread", {"spread": (spread, "length")}),
            "post_age": Reason("post_age"),
            "pole": Reason("pole", {"length": (long, "length")}, {"pole": tables.posts()[pole].name}),
            "pole_length": Reason(
                "pole_length", {"support": (plant.support_height_m, "length"), "length": (long, "length")}
            ),
            "footing": Reason("footing_poles"),
            "in_soil": Reason("depth_poles", {"depth": (depth, "length")}),
            "tail": Reason("tail_v"),
            "crossing": Reason("notched"),
            "ridge": Reason("ridge"),
            "between": Reason("between"),
            "stem_tie": Reason("stem_tie"),
            "brace": Reason("brace_row"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: CrossedPolesOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return pairs, ridge, braces, any strings, and plants in metres."""
        post, height, half = tables.posts()[options.pole], _height(options), options.spread / 2
        xs, members = posts.stations(options.length, options.pair_spacing), []
        for n, x in enumerate(map(float, xs)):
            for k, side in enumerate((1.0, -1.0)):
                at = x + side * post.soil_width / 2
                members += splayed.pole(
                    post,
                    2 * n + k + 1,
                    (at, side * half, 0.0),
                    (at, 0.0, height),
                    options.in_soil,
                    options.pole_length,
                )
            lash = _LASH_ENDS + _LASH * 2 * post.soil_width
            knot: tuple[Point, ...] = ((x - post.soil_width, 0.0, height), (x + post.soil_width, 0.0, height))
            members.append(splayed.knot(n + 1, options.crossing, options.binding, knot, lash))
        members += _ridge_of(options, height)
        grown = plants.along(plantings, options.length, half + _OUTSIDE)
        supplies = list(
            plants.stem_ties(plantings, options.stem_tie, height, tables.constant("stripped_pruned"))
        )
        if options.between == "strings":
            at_ = dict.fromkeys(range(len(grown)), 0.0)
            members += hung.members(options.string, grown, at_, height)
            if options.hung_by == "hook":
                supplies.append(Supply("string-hook", "fittings", options.hook, len(grown)))
            supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
        if options.footing == "concrete":
            supplies += posts.concrete([options.in_soil] * 2 * len(xs))
        grown = tuple(Plant(p.at, p.planting, (p.at, (p.at[0], 0.0, height))) for p in grown)
        members += _braces(options, height)
        members += _ends_of(options, site).members(options.length) if options.brace == "guy" else []
        end, bay = float(xs[-1]), float(xs[1])
        top = max(z for m in members if m.role == "post" for _, _, z in m.points)
        dimensions = (
            Dimension(
                "options.length", "elevation", (0, 0, -options.in_soil), (end, 0, -options.in_soil), end, -0.6
            ),
            Dimension("options.pair_spacing", "elevation", (0, 0, top), (bay, 0, top), bay, 0.4),
            Dimension(
                "options.in_soil", "elevation", (0, 0, -options.in_soil), (0, 0, 0), options.in_soil, -0.8
            ),
            Dimension(
                "options.spread",
                "end",
                (0, -half, -options.in_soil),
                (0, half, -options.in_soil),
                options.spread,
                -0.5,
            ),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        return Geometry(
            located(members),
            grown,
            dimensions,
            tuple(supplies),
            options.length,
            top,
            options.in_soil,
            climb=height,
            unit=2 * post.soil_width,
        )

    def loaded(
        self, options: CrossedPolesOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Crossed:
        """Return the poles under the loads of the cases."""
        return _Crossed(options, geometry, structure, site, cases)

    def remarks(
        self, options: CrossedPolesOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: poles long enough, a ridge to hang on, a row that does not go
        down like cards.
        """
        row, height = tables.posts()[options.pole], _height(options)
        remarks = fits.of_ground(site.bed, options.length, options.in_soil)
        remarks += [
            *fits.of_stock(row, options.pole_length, ("pole", "pole_length")),
            *fits.of_lashing(row, options.crossing),
        ]
        if options.brace == "none":
            remarks.append(Remark("row-racks", "watch", source="handbook-9.4", levers=("brace",)))
        if options.brace == "guy":
            remarks += fits.of_guys(site.bed, options.length, _ends_of(options, site).reach())
        if options.ridge == "wire" and options.brace != "guy":
            remarks.append(Remark("ridge-wire-ends", "wrong", source="handbook-7.5", levers=("brace",)))
        if options.between == "strings" and options.ridge == "none":
            remarks.append(Remark("strings-unhung", "wrong", source="handbook-parts-3.5", levers=("ridge",)))
        if options.spread > site.bed.width + 1e-6:
            wide = {"wide": (options.spread, "length"), "bed": (site.bed.width, "length")}
            remarks.append(
                Remark("poles-past-bed", "watch", wide, source="handbook-parts-3.5", levers=("spread",))
            )
        remarks += fits.of_setting(options.footing)
        if options.footing == "soil":
            remarks.append(
                Remark("feet-unsure", "watch", source="handbook-15", levers=("in_soil", "footing"))
            )
        for planting in structure.plantings:
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, options.length),
                *fits.of_tying(planting),
            ]
            remarks += fits.of_height(planting, height, ("pole_length",))
        remarks += fits.of_age(tables.posts()[options.pole], options.post_age, ("post_age", "pole"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of setting up poles."""
        cautions = ["services", "poles-eyes", "step"]
        if geometry.by_role("anchor"):
            cautions.append("guys")
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "climb", "judgement")


_END_LEVERS = {
    "guy": ("brace_wire", "brace"),
    "strut": ("pole", "brace"),
    "post": ("brace", "pole", "pair_spacing"),
    "soil": ("in_soil", "brace", "footing"),
    "prop": ("anchor", "pair_spacing"),
    "lift": ("in_soil", "brace"),
}


def _height(options: CrossedPolesOptions) -> float:
    """Return the height at which the poles cross. [m]"""
    long = options.pole_length - options.in_soil - options.tail
    return math.sqrt(max(long**2 - (options.spread / 2) ** 2, 0.16))


def _run(options: CrossedPolesOptions) -> float:
    """Return the distance along the row of a diagonal: to the next pair but one, a metre or so. [m]"""
    return min(max(2 * options.pair_spacing, 1.0), options.length)


def _ground_of(options: CrossedPolesOptions, site: Site) -> embedment.Ground:
    return embedment.ground_of(site.bed, "concrete" if options.footing == "concrete" else "driven")


def _ends_of(options: CrossedPolesOptions, site: Site) -> EndAssembly:
    wire = options.brace_wire if options.brace == "guy" else "wire_soft_14"
    return EndAssembly(
        "guy" if options.brace == "guy" else "plain",
        bending.after(tables.posts()[options.pole], options.post_age),
        _ground_of(options, site),
        options.in_soil,
        _height(options),
        tables.wires()[wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.pole],
        _END_LEVERS,
    )


def _ridge_of(options: CrossedPolesOptions, height: float) -> list[Member]:
    """Return the ridge, resting in the V that the tails make, in lapped lengths; or a wire through the
    crossings.
    """
    post = tables.posts()[options.pole]
    if options.ridge == "pole":
        row = tables.posts()[options.ridge_pole]
        slope = math.asin(min(options.spread / 2 / math.hypot(options.spread / 2, height), 0.9))
        z = height + (post.soil_width + row.soil_width) / (2 * math.sin(slope))
        line = ((-_OVERHANG, 0.0, z), (options.length + _OVERHANG, 0.0, z))
        long = options.length + 2 * _OVERHANG
        return [Member("ridge", "rail", "posts", row.key, line, long, row.soil_width)]
    if options.ridge == "wire":
        row_ = tables.wires()[options.ridge_wire]
        line = ((0.0, 0.0, height), (options.length, 0.0, height))
        return [Member("ridge", "wire", "wires", row_.key, line, options.length + 1.3, row_.d)]
    return []


def _braces(options: CrossedPolesOptions, height: float) -> list[Member]:
    """Return a diagonal in the plane of each row at each end."""
    if options.brace != "diagonal":
        return []
    row, run, half, end = (
        tables.wires()[options.brace_wire],
        _run(options),
        options.spread / 2,
        options.length,
    )
    members = []
    for name, foot, top in (("first", 0.0, run), ("last", end, end - run)):
        for side, y in (("left", half), ("right", -half)):
            line: tuple[Point, ...] = ((foot, y, 0.02), (top, 0.0, height))
            members.append(
                Member(f"brace-{name}-{side}", "guy", "wires", row.key, line, math.dist(*line) + 0.6, row.d)
            )
    return members
