"""Existing: a wall with wires on eyes, a fence that is to carry a sail more, a tall pole in a sleeve that is
lowered to pick.
"""

from __future__ import annotations

import math
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import embedment, existing, tension
from ..family.options import choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array
from ..path.geometry import Dimension, Geometry, Member, Plant, Point, Supply, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts
from ..patterns import strings as hung
from ..patterns.stand import Bays
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits

_OUT = 0.30  # of a plant from a wall, out of its dry foot [m], parts handbook 3.14
_LOWEST = 0.30  # wire above the soil [m], parts handbook 3.14
_WIRE_END = 0.15  # of wire past each end eye [m], parts handbook 3.14
_UNEVEN = 1.5  # of a crop among several wires
_PEGS = 1.0  # radius of the string pegs round a pole [m], parts handbook 3.14
_GUYED_AT = 0.7  # of a pole's height
_GUYS = 3
_GUY_ANGLE = math.radians(55.0)
_COLUMN = 0.50  # width of what climbs a pole [m], structures handbook 14.18
_COURSES = 0.25  # between the lines a wall is drawn with [m]


class ExistingOptions(Typed):
    """What must be decided of something that stands already. Lengths in metres."""

    fixed_to: Literal["wall", "fence", "pole"] = choice("host", "wall", asked=True)
    owner: Literal["mine", "agreed", "not-asked"] = choice("host", "mine", asked=True)
    state: Literal["sound", "tired", "rotten"] = choice("host", "sound", asked=True)
    length: float = measure(
        "row", "length", 3.0, 0.3, 20.0, 0.05, when=("fixed_to", ("wall", "fence")), asked=True
    )
    height: float = measure(
        "row",
        "length",
        2.0,
        0.5,
        3.0,
        0.01,
        tries=(-0.2, -0.4),
        when=("fixed_to", ("wall", "fence")),
        asked=True,
    )
    offset: float = measure(
        "wires", "length", 0.08, 0.03, 0.2, 0.01, when=("fixed_to", ("wall", "fence")), asked=True
    )
    wires: int = measure(
        "wires", "count", 6, 1, 10, 1, tries=(1, 2), when=("fixed_to", ("wall", "fence")), asked=True
    )
    wire: Annotated[str, row_of("wires")] = item(
        "wires", "wires", "wire_soft_14", when=("fixed_to", ("wall", "fence"))
    )
    fix_spacing: float = measure(
        "wires", "length", 1.5, 0.4, 2.4, 0.01, tries="bays", when=("fixed_to", ("wall", "fence"))
    )
    eye: Annotated[str, row_of("fittings", "wall-eye")] = item(
        "wires", "fittings", "vine_eye_80", "wall-eye", when=("fixed_to", ("wall", "fence"))
    )
    infill: Literal["none", "strings"] = choice(
        "wires", "none", when=("fixed_to", ("wall", "fence")), asked=True
    )
    string: Annotated[str, row_of("twines", "string")] = item("wires", "twines", "sisal_2.5", "string")
    base: Annotated[str, row_of("fittings", "peg")] = item("wires", "fittings", "peg_wire", "peg")
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("wires", "ties", "twine_jute_3_loop", "stem")
    boards: Literal["closed", "gaps", "mesh"] = choice(
        "fence", "closed", when=("fixed_to", ("fence",)), asked=True
    )
    fence_height: float = measure(
        "fence", "length", 1.8, 0.5, 2.4, 0.01, when=("fixed_to", ("fence",)), asked=True
    )
    fence_post: Annotated[str, row_of("posts", "post")] = item(
        "fence", "posts", "post_lumber_89", "post", when=("fixed_to", ("fence",)), asked=True
    )
    fence_spacing: float = measure(
        "fence", "length", 1.8, 0.6, 3.0, 0.01, when=("fixed_to", ("fence",)), asked=True
    )
    fence_depth: float = measure(
        "fence", "length", 0.6, 0.2, 1.2, 0.01, when=("fixed_to", ("fence",)), asked=True
    )
    pole: Annotated[str, row_of("posts", "tall")] = item(
        "pole", "posts", "pole_tube_60", "tall", when=("fixed_to", ("pole",))
    )
    pole_top: float = measure(
        "pole", "length", 5.0, 2.0, 7.0, 0.05, tries=(-0.5, -1.0), when=("fixed_to", ("pole",)), asked=True
    )
    pole_depth: float = measure(
        "pole", "length", 1.2, 0.5, 1.8, 0.05, tries=(0.2, 0.4), when=("fixed_to", ("pole",))
    )
    guyed: bool = choice("pole", False, when=("fixed_to", ("pole",)))
    guy_wire: Annotated[str, row_of("wires")] = item(
        "pole", "wires", "wire_soft_9", when=("guyed", ("true",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "pole", "anchors", "anchor_screw_30x4", when=("guyed", ("true",))
    )
    lowered: bool = choice("pole", True, when=("fixed_to", ("pole",)), asked=True)


class _Host(Bays[ExistingOptions]):
    """Everything the checks of something existing need, worked out once for its cases."""

    spaced_by = "fix_spacing"

    @cached_property
    def share(self) -> float:
        """Return the share of its strength that is left of what stands already."""
        return tables.constant(f"state_{self.options.state}")

    @cached_property
    def solid(self) -> float:
        return tables.constant(f"fence_{self.options.boards}") if self.options.fixed_to == "fence" else 0.0

    @cached_property
    def wind(self) -> face.FaceWind:
        top = {
            "wall": self.options.height,
            "fence": self.options.fence_height,
            "pole": self.options.pole_top,
        }[self.options.fixed_to]
        return face.wind_on_face(self.growths, self.solid, 0.0, top, self.cases)

    @cached_property
    def leaves(self) -> face.FaceWind:
        """Return the wind on the leaves and what they hang on, without the fence behind them."""
        return face.wind_on_face(self.growths, 0.0, 0.0, self.geometry.climb, self.cases)

    @cached_property
    def hanging(self) -> Array:
        """Return the crop on the wires of a bay between eyes. [N]"""
        return self.crop_weight((self.xs[1:] + self.xs[:-1]) / 2, self.bay / 2, self.bay)

    @cached_property
    def on_wire(self) -> tuple[Array, Array]:
        """Return the crop and the wind on a metre of the most loaded wire. [N/m]"""
        uneven = 1.0 if self.options.wires == 1 else _UNEVEN
        return np.asarray(self.hanging / self.bay / self.options.wires * uneven), np.asarray(
            self.leaves.force / self.options.wires * uneven
        )

    def _pull(self, load: Array) -> Array:
        eyes = np.full((1, 1, 1), tables.constant("eye_stiffness"))
        return tension.wire_pull(
            tables.wires()[self.options.wire], load, self.bay, eyes, (len(self.xs) - 1) / 2
        )

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to what stood there before."""
        if self.options.fixed_to == "pole":
            return self._pole()
        first = self.stem_ties(self.options.stem_tie, self.leaves.pressure, self.leaves.leaf_height, "wire")
        if self.options.infill == "strings":
            twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
            stem = tables.ties()[self.options.stem_tie]
            first = hung.string_links(
                self, self.leaves.pressure, self.leaves.leaf_height, twine, stem, None, peg, "wire"
            )
        return (*first, *self._wired(), *(self._fence() if self.options.fixed_to == "fence" else ()))

    def _wired(self) -> list[Link]:
        wire, row = tables.wires()[self.options.wire], tables.fittings()[self.options.eye]
        down, side = self.on_wire
        pull = self._pull(np.hypot(down, side))
        to = ("fence-post",) if self.options.fixed_to == "fence" else ()
        inner = np.hypot(down, side) * self.bay
        check = existing.weakened(
            existing.eye(row, np.maximum(pull, inner), 0.5 * down * self.bay, self.options.offset), self.share
        )
        middle = (Arrow((self.bay / 2, 0.0, self.options.height), (0.0, 0.0, -1.0)),)
        wires, eyes = (
            keys(self.geometry.by_role("wire")),
            tuple(m.key for m in self.geometry.members if m.key.startswith("eye")),
        )
        return [
            Link(
                "wire",
                wires,
                ("wires", wire.key),
                ("eye",),
                ("wire", "wires", "fix_spacing"),
                np.hypot(down, side) * self.bay,
                (tension.main_wire(wire, down, side, self.bay, pull),),
                middle,
            ),
            Link(
                "eye",
                eyes,
                ("fittings", row.key),
                to,
                ("eye", "fix_spacing", "wires"),
                np.maximum(pull, inner),
                (check,),
            ),
        ]

    def _fence(self) -> list[Link]:
        """Return the fence's posts and their soil, with the leaves added to its own sail."""
        post, span = tables.posts()[self.options.fence_post], self.options.fence_spacing
        force, height = np.asarray(self.wind.force * span), np.asarray(self.wind.height)
        bare = (
            face.leafy_pressure(self.cases.gust, self.solid, np.zeros((1, 1, 1)))
            * self.options.fence_height**2
            / 2
            * span
        )
        sail = existing.weakened(existing.added_sail(post, force, height, bare), self.share)
        ground = embedment.beside(self.ground)
        grip = existing.weakened(
            embedment.grip("soil-grip", ground, post, self.options.fence_depth, force, height, self.cases),
            self.share,
        )
        side = (Arrow((0.0, 0.0, min(self.options.fence_height, 1.0)), (0.0, 1.0, 0.0)),)
        standing = keys(self.geometry.by_role("post"))
        return [
            Link(
                "fence-post",
                standing,
                ("posts", post.key),
                ("fence-soil",),
                ("height", "fixed_to"),
                force,
                (sail,),
                side,
            ),
            Link(
                "fence-soil",
                keys(self.geometry.by_role("grip")),
                None,
                (),
                ("height", "fixed_to"),
                force,
                (grip,),
            ),
        ]

    @cached_property
    def column(self) -> tuple[Array, Array]:
        """Return the wind on what climbs a pole and where it acts, [N] and [m]."""
        wide = max(_COLUMN, *(s.crop.depth_m for s in self.growths))
        return np.asarray(self.wind.pressure * self.wind.leaf_height * wide), np.asarray(
            min(s.bottom for s in self.growths) + self.wind.leaf_height / 2
        )

    def _pole(self) -> tuple[Link, ...]:
        """Return strings, pole, its guys and its concrete."""
        post, (force, height) = tables.posts()[self.options.pole], self.column
        twine, peg = tables.twines()[self.options.string], tables.fittings()[self.options.base]
        plants_ = max(sum(p.count for p in self.structure.plantings), 1)
        per_string = np.asarray(
            force
            / plants_
            / np.maximum(self.wind.leaf_height * max(s.planting.spacing for s in self.growths), 1e-9)
        )
        strung = hung.string_links(
            self,
            per_string,
            self.wind.leaf_height,
            twine,
            tables.ties()[self.options.stem_tie],
            None,
            peg,
            "pole",
        )
        guyed = _GUYED_AT * self.options.pole_top if self.options.guyed else 0.0
        ground = embedment.ground_of(self.site.bed, "concrete")
        low = np.asarray(np.where(guyed > 0, 0.05, height))
        onto = np.asarray(force * np.maximum(1.0 - height / guyed, 0.25)) if guyed else force
        grip = embedment.grip("soil-grip", ground, post, self.options.pole_depth, onto, low, self.cases)
        side = (Arrow((_PEGS, 0.0, self.options.pole_top / 2), (0.0, 1.0, 0.0)),)
        to = ("pole-soil", "guy") if guyed else ("pole-soil",)
        links = [
            Link(
                "pole",
                keys(self.geometry.by_role("post")),
                ("posts", post.key),
                to,
                ("pole", "guyed", "pole_top"),
                force,
                (existing.pole(post, force, height, guyed),),
                side,
            ),
            Link(
                "pole-soil",
                keys(self.geometry.by_role("grip")),
                None,
                (),
                ("pole_depth", "guyed", "pole_top"),
                onto,
                (grip,),
            ),
        ]
        if guyed:
            wire, anchor = tables.wires()[self.options.guy_wire], tables.anchors()[self.options.anchor]
            tight = existing.guy_pull(force, height, guyed, _GUY_ANGLE)
            held = tension.anchor(anchor, self.ground.native, tight, _GUY_ANGLE, self.cases)
            links += [
                Link(
                    "guy",
                    keys(self.geometry.by_role("guy")),
                    ("wires", wire.key),
                    ("anchor",),
                    ("guy_wire",),
                    tight,
                    (tension.guy(wire, tight, _GUY_ANGLE),),
                ),
                Link(
                    "anchor",
                    keys(self.geometry.by_role("anchor")),
                    ("anchors", anchor.key),
                    (),
                    ("anchor", "pole_top"),
                    tight,
                    held,
                ),
            ]
        return (*strung, *links)

    def service(self) -> tuple[Service, ...]:
        """Return how far a pole or a fence leans, and how far the wires sag."""
        top = self.geometry.top
        if self.options.fixed_to == "pole":
            post, (force, height) = tables.posts()[self.options.pole], self.column
            moved = force * posts.lean_per_force(
                post, embedment.beside(self.ground), self.options.pole_depth, height, height, top, self.cases
            )
            return (
                Service(
                    "lean",
                    np.minimum(moved * (0.1 if self.options.guyed else 1.0), top),
                    top / 10,
                    "handbook-4.2",
                    ("pole", "guyed"),
                ),
            )
        down, side = self.on_wire
        sag = tension.wire_sag(self._pull(np.hypot(down, side)), down, self.bay)
        sagging = Service(
            "sag",
            np.asarray(sag),
            self.bay / tables.constant("belly_limit"),
            "handbook-6.4",
            ("wire", "fix_spacing", "wires"),
        )
        if self.options.fixed_to == "wall":
            return (
                Service("host-still", 0.0 * side, top / tables.constant("sway_limit"), "handbook-4.2", ()),
                sagging,
            )
        post = tables.posts()[self.options.fence_post]
        moved = (
            self.wind.force
            * self.options.fence_spacing
            * posts.lean_per_force(
                post,
                embedment.beside(self.ground),
                self.options.fence_depth,
                np.asarray(self.wind.height),
                np.asarray(self.wind.height),
                top,
                self.cases,
            )
            / self.share
        )
        return (
            Service(
                "lean",
                np.minimum(moved, top),
                top / tables.constant("sway_limit"),
                "handbook-4.2",
                ("height",),
            ),
            sagging,
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind on what grows there, and what wires or pole take of it. [N]"""
        if self.options.fixed_to == "pole":
            force, _ = self.column
            return force, force
        uneven = 1.0 if self.options.wires == 1 else _UNEVEN
        return self.leaves.force * self.options.length, self.on_wire[1] / uneven * self.options.wires * float(
            self.xs[-1]
        )


class Existing(Family[ExistingOptions]):
    """Something that stands already."""

    key: ClassVar[str] = "existing"
    options = ExistingOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return wires on a wall for a crop along it, or a tall pole for one that climbs so high, every value
        with its reason.
        """
        plant = tables.crops()[need.crop]
        row = plants.sown(need, site, longest=20.0, shortest=0.3)
        tall = plant.support_height_m > 3.0 and site.bed.kind == "in-ground"
        planting = row.plantings[0]
        if tall:
            planting = planting.model_copy(
                update={"count": need.count or 6, "spacing": round(math.tau * _PEGS / (need.count or 6), 2)}
            )
        height = round(min(max(plant.support_height_m, 0.6), 2.1) * 20) / 20
        wires = max(min(math.floor((height - _LOWEST) / 0.30 + 1e-6) + 1, 10), 1)
        twines = plant.training in ("TWINE", "FRONT", "GUIDE")
        bays = max(math.ceil(row.length / 1.5 - 1e-6), 1)
        spacing = round(min(max(row.length / bays + 0.004, 0.4), 2.4), 2)
        options = ExistingOptions(
            fixed_to="pole" if tall else "wall",
            length=row.length,
            height=height,
            wires=wires,
            fix_spacing=spacing,
            infill="strings" if twines else "none",
            string="polyester_3" if tall else "sisal_2.5",
            pole_top=min(max(plant.support_height_m, 2.0), 7.0),
        )
        reasons = {
            **row.reasons,
            (count := planting.path("count")): Reason("count_asked") if need.count else row.reasons[count],
            "fixed_to": Reason("host_pole" if tall else "host_wall", words={"crop": plant.name}),
            "owner": Reason("owner"),
            "state": Reason("state"),
            "height": Reason(
                "stake_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
            ),
            "wires": Reason("wires_wall", {"wires": (wires, "count")}),
            "fix_spacing": Reason("fix_spacing", {"spacing": (spacing, "length")}),
            "infill": Reason("infill_strings" if twines else "infill_wires", words={"crop": plant.name}),
            "string": Reason("twine"),
            "base": Reason("foot_held"),
            "stem_tie": Reason("stem_tie"),
        }
        return Proposal(options, (planting,), reasons)

    def geometry(self, options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return what stands there, what is fixed to it, and plants, in metres."""
        return (
            _pole_geometry(options, plantings)
            if options.fixed_to == "pole"
            else _wired_geometry(options, plantings, site)
        )

    def loaded(
        self, options: ExistingOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Host:
        """Return it under the loads of the cases."""
        return _Host(options, geometry, structure, site, cases)

    def remarks(
        self, options: ExistingOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: whose it is, how sound it is, how dry its foot is."""
        remarks = fits.of_ground(site.bed, geometry.length, 0.0)
        key, level = {
            "mine": ("", "fine"),
            "agreed": ("owner-agreed", "fine"),
            "not-asked": ("owner-ask", "wrong"),
        }[options.owner]
        if key:
            remarks.append(Remark(key, level, source="handbook-parts-4.6", levers=("owner",)))  # type: ignore[arg-type]
        if options.state != "sound":
            left = {"share": (tables.constant(f"state_{options.state}") * 100, "count")}
            remarks.append(
                Remark("host-tired", "watch", left, source="handbook-parts-3.14", levers=("state",))
            )
        elif options.fixed_to != "pole":
            remarks.append(
                Remark(
                    "host-test",
                    "watch",
                    {"push": (100.0, "force"), "pull": (150.0, "force")},
                    source="handbook-parts-3.14",
                    levers=("state",),
                )
            )
        remarks += _of_pole(options) if options.fixed_to == "pole" else _of_wires(options)
        for planting in structure.plantings:
            remarks += [*fits.of_suit(planting, self.key), *fits.of_tying(planting)]
            if options.fixed_to != "pole":
                remarks += [
                    *fits.of_row(planting, options.length),
                    *fits.of_height(planting, options.height, ("height",)),
                ]
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of fixing to what stands already."""
        if geometry.by_role("grip") and geometry.top > 3.0:
            return ("services", "power-lines", "concrete", "guys", "climb", "judgement")
        return ("shared-wall", "drilling", "climb", "judgement")


def _of_wires(options: ExistingOptions) -> list[Remark]:
    """Return remarks on wires along a wall or a fence."""
    remarks = []
    if options.fixed_to == "wall":
        remarks.append(Remark("wall-dry", "watch", {"out": (_OUT, "length")}, source="handbook-parts-3.14"))
        if options.eye == "eye_screw_wood":
            remarks.append(Remark("eye-misfit", "wrong", source="handbook-parts-2.7", levers=("eye",)))
    if options.fixed_to == "fence":
        if options.eye != "eye_screw_wood":
            remarks.append(Remark("eye-misfit", "wrong", source="handbook-parts-2.7", levers=("eye",)))
        if options.height > options.fence_height + 0.05:
            values = {"over": (options.height - options.fence_height, "length")}
            remarks.append(
                Remark("over-fence", "watch", values, source="handbook-parts-4.6", levers=("height",))
            )
        if options.fix_spacing < options.fence_spacing - 0.02:
            remarks.append(
                Remark(
                    "eyes-in-posts",
                    "watch",
                    {"spacing": (options.fence_spacing, "length")},
                    source="handbook-parts-3.14",
                    levers=("fix_spacing",),
                )
            )
    return remarks


def _of_pole(options: ExistingOptions) -> list[Remark]:
    """Return remarks on a tall pole: what it falls on, how it is lowered."""
    remarks = [
        Remark(
            "pole-falls",
            "watch",
            {"radius": (options.pole_top, "length")},
            source="handbook-15",
            levers=("pole_top",),
        )
    ]
    key = "pole-lowered" if options.lowered else "pole-stays"
    remarks.append(
        Remark(key, "fine" if options.lowered else "watch", source="handbook-parts-3.14", levers=("lowered",))
    )
    return [
        *remarks,
        *fits.of_stock(
            tables.posts()[options.pole], options.pole_top + options.pole_depth, ("pole_top", "pole_depth")
        ),
    ]


def _heights(options: ExistingOptions) -> list[float]:
    """Return the heights of the wires, the top one first named by the height. [m]"""
    if options.wires == 1:
        return [options.height]
    return [float(z) for z in np.linspace(min(_LOWEST, options.height / 2), options.height, options.wires)]


def _wired_geometry(options: ExistingOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
    """Return a wall or a fence with its wires, eyes, strings and plants."""
    way = 1.0 if plantings[0].side == "left" else -1.0
    end, xs = options.length, posts.stations(options.length, options.fix_spacing)
    back, members = -way * options.offset, _host_drawn(options, -way * options.offset)
    wire = tables.wires()[options.wire]
    for n, z in enumerate(_heights(options)):
        bought = end + 2 * _WIRE_END
        members.append(
            Member(
                f"wire-{n + 1}",
                "wire",
                "wires",
                wire.key,
                tuple((float(x), 0.0, z) for x in xs),
                bought,
                wire.d,
                sags=True,
            )
        )
        members += [
            Member(
                f"eye-{n + 1}-{i + 1}",
                "fitting",
                "fittings",
                options.eye,
                ((float(x), 0.0, z),),
                shape="point",
            )
            for i, x in enumerate(xs)
        ]
    out = _OUT if options.fixed_to == "wall" else plants.OFFSET
    grown = plants.along(plantings, end, out)
    if options.fixed_to == "wall":
        grown = tuple(Plant((p.at[0], way * abs(p.at[1]), p.at[2]), p.planting) for p in grown)
    at = dict.fromkeys(range(len(grown)), 0.0)
    supplies = list(
        plants.stem_ties(plantings, options.stem_tie, options.height, tables.constant("stripped_pruned"))
    )
    if options.infill == "strings":
        members += hung.members(options.string, grown, at, options.height)
        supplies.append(Supply("string-peg", "fittings", options.base, len(grown)))
    grown = tuple(
        Plant(p.at, p.planting, (p.at, (p.at[0], 0.0, 0.2), (p.at[0], 0.0, options.height))) for p in grown
    )
    top = max(options.height, options.fence_height) if options.fixed_to == "fence" else options.height + 0.2
    dimensions = (
        Dimension("options.length", "elevation", (0, 0, 0), (end, 0, 0), end, -0.6),
        Dimension("options.height", "elevation", (end, 0, 0), (end, 0, options.height), options.height, 0.8),
        Dimension("options.fix_spacing", "elevation", (0, 0, top), (float(xs[1]), 0, top), float(xs[1]), 0.4),
        Dimension("options.offset", "end", (0, back, 0), (0, 0, 0), options.offset, -0.3),
        *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
    )
    deep = options.fence_depth if options.fixed_to == "fence" else 0.0
    return Geometry(
        located(members), grown, dimensions, tuple(supplies), end, top, deep, climb=options.height
    )


def _host_drawn(options: ExistingOptions, y: float) -> list[Member]:
    """Return the wall, or the fence with its posts, as it stands there: nothing of it is bought."""
    end = options.length
    if options.fixed_to == "wall":
        high = options.height + 0.2
        lines: list[tuple[Point, ...]] = [
            ((0.0, y, z), (end, y, z)) for z in np.arange(0.0, high + 1e-6, _COURSES).tolist()
        ]
        lines += [((x, y, 0.0), (x, y, high)) for x in (0.0, end)]
        corners = ((0.0, y, 0.0), (end, y, 0.0), (end, y, high), (0.0, y, high))
        return [Member("wall", "host", "existing", "", corners, 0.0, 0.004, "wires", lines=tuple(lines))]
    post, members = tables.posts()[options.fence_post], []
    high, behind = options.fence_height, y - math.copysign(post.a / 2, -y) if y else y
    boards = np.arange(
        0.05, high + 1e-6, {"closed": 0.12, "gaps": 0.20, "mesh": 0.15}[options.boards]
    ).tolist()
    rows_ = tuple(((0.0, y, z), (end, y, z)) for z in boards)
    corners = ((0.0, y, 0.0), (end, y, 0.0), (end, y, high), (0.0, y, high))
    members.append(Member("fence", "host", "existing", "", corners, 0.0, 0.006, "wires", lines=rows_))
    for n, x in enumerate(posts.stations(end, options.fence_spacing).tolist()):
        members.append(
            Member(
                f"post-{n + 1}",
                "post",
                "existing",
                "",
                ((x, behind, -options.fence_depth), (x, behind, high)),
                0.0,
                post.soil_width,
            )
        )
        members.append(
            Member(
                f"grip-{n + 1}",
                "grip",
                "",
                "",
                ((x, behind, -options.fence_depth), (x, behind, 0.0)),
                thickness=3 * post.soil_width,
            )
        )
    return members


def _pole_geometry(options: ExistingOptions, plantings: tuple[Planting, ...]) -> Geometry:
    """Return a tall pole in its concrete with a ring of strings, its guys, and plants."""
    row, top = tables.posts()[options.pole], options.pole_top
    middle = _PEGS
    foot, head = (middle, 0.0, -options.pole_depth), (middle, 0.0, top)
    members = [
        Member(
            "post-1",
            "post",
            "posts",
            row.key,
            (foot, head),
            max(row.lengths_m) if top + options.pole_depth > min(row.lengths_m) else min(row.lengths_m),
            row.a,
        ),
        Member("grip-1", "grip", "", "", (foot, (middle, 0.0, 0.0)), thickness=tables.constant("collar")),
    ]
    owners = [index for index, planting in enumerate(plantings) for _ in range(planting.count)]
    way, grown = (1.0 if plantings[0].side == "left" else -1.0), []
    for n, index in enumerate(owners):
        angle = way * math.tau * (n + 0.5) / len(owners)
        at: Point = (middle + _PEGS * math.cos(angle), _PEGS * math.sin(angle), 0.0)
        grown.append(Plant(at, index, (at, head)))
        length = math.dist(at, head) + 0.5
        members.append(
            Member(
                f"string-{n + 1}",
                "string",
                "twines",
                options.string,
                (head, (at[0], at[1], 0.05)),
                round(length, 3),
                0.004,
            )
        )
    if options.guyed:
        high = _GUYED_AT * top
        for n in range(_GUYS):
            angle = math.tau * n / _GUYS + math.pi / 6
            reach = high / math.tan(_GUY_ANGLE)
            low = (middle + reach * math.cos(angle), reach * math.sin(angle), 0.0)
            members.append(
                Member(
                    f"guy-{n + 1}",
                    "guy",
                    "wires",
                    options.guy_wire,
                    ((middle, 0.0, high), low),
                    math.hypot(high, reach) + 1.1,
                    0.004,
                )
            )
            members.append(
                Member(f"anchor-{n + 1}", "anchor", "anchors", options.anchor, (low,), shape="point")
            )
    ties = list(plants.stem_ties(plantings, options.stem_tie, top, tables.constant("stripped_pruned")))
    supplies = (
        Supply("string-peg", "fittings", options.base, len(owners)),
        *ties,
        *posts.concrete([options.pole_depth]),
    )
    dimensions = (
        Dimension("options.pole_top", "elevation", (middle, 0, 0), (middle, 0, top), top, 1.3),
        Dimension(
            "options.pole_depth",
            "elevation",
            (middle, 0, -options.pole_depth),
            (middle, 0, 0),
            options.pole_depth,
            -0.8,
        ),
    )
    return Geometry(
        located(members),
        tuple(grown),
        dimensions,
        supplies,
        2 * _PEGS,
        top,
        options.pole_depth,
        climb=top,
        unit=2 * _PEGS,
    )
