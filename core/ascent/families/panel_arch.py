"""Panel arch: welded panels bent over a path or a bed, one or several in a tunnel, their feet held by posts,
boards, blocks or soil.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import arches, embedment, footings, tension, ties
from ..checks import mesh as mesh_checks
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..family.wishes import Ask, Way, Wish
from ..loads import crop, face
from ..loads.cases import Cases
from ..mechanics import Array, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Supply, keys, located, tributary
from ..path.loadpath import Arrow, Check, Link, Remark, Service
from ..patterns import arch_feet, bent_panel, plants, tube_arch
from ..patterns import strings as hung
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_STRING_IN = 0.12  # of a string's foot inside the panel [m]
_STRING_TOP = 0.15  # of the span, from the middle to where a string hangs
_LEGS = 2  # posts on each side of a panel
_HOLDS = (0.6, 0.91, 1.2)  # heights worth trying to hold a panel upright [m]
_HEAD = 1.8  # height of a head, at which the width of an arch is given [m], structures handbook 8.3
_STIFF = 0.3  # of a post beside a leg, from which it keeps the leg upright [m]
_LAP_EVERY = 0.6  # between the ties of a lap [m], parts handbook 3.0


class PanelArchOptions(Typed):
    """What must be decided of a panel arch. Lengths in metres."""

    panel: Annotated[str, row_of("meshes")] = item("panel", "meshes", "panel_large", asked=True)
    frame: Literal["sprung", "tubes"] = choice("panel", "sprung", asked=True)
    panel_length: float = measure(
        "panel", "length", 4.88, 2.0, 6.1, 0.01, when=("frame", ("sprung",)), asked=True
    )
    panel_width: float = measure(
        "panel", "length", 1.27, 0.6, 1.5, 0.01, when=("frame", ("sprung",)), asked=True
    )
    panels: int = measure("panel", "count", 1, 1, 6, 1, when=("frame", ("sprung",)), asked=True)
    overlap: float = measure(
        "panel", "length", 0.20, 0.0, 0.6, 0.01, when=("panels", ("2", "3", "4", "5", "6")), asked=True
    )
    lap_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "panel", "ties", "tie_cable_7.6_uv", "mesh", when=("panels", ("2", "3", "4", "5", "6"))
    )
    tube: Annotated[str, row_of("posts", "arch")] = item(
        "arch", "posts", "tube_arch_16", "arch", when=("frame", ("tubes",))
    )
    tube_rise: float = measure("arch", "length", 2.2, 1.2, 2.8, 0.01, when=("frame", ("tubes",)), asked=True)
    arches: int = measure("arch", "count", 2, 2, 8, 1, when=("frame", ("tubes",)), asked=True)
    arch_spacing: float = measure(
        "arch", "length", 1.0, 0.4, 1.5, 0.05, tries=(-0.1, -0.2, -0.3), when=("frame", ("tubes",))
    )
    clad: float = measure("arch", "length", 2.0, 0.5, 3.0, 0.05, when=("frame", ("tubes",)), asked=True)
    clad_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "arch", "ties", "tie_cable_7.6_uv", "mesh", when=("frame", ("tubes",))
    )
    over_wire: Annotated[str, row_of("wires")] = item(
        "arch", "wires", "wire_soft_14", when=("frame", ("tubes",))
    )
    over_gap: float = measure(
        "arch", "length", 0.25, 0.15, 0.30, 0.01, when=("frame", ("tubes",)), asked=True
    )
    span: float = measure("arch", "length", 1.22, 0.6, 2.6, 0.01, tries=(-0.15, 0.15, 0.3), asked=True)
    hold: Literal["held", "clamped", "free"] = choice("arch", "held")
    hold_height: float = measure(
        "arch", "length", 0.91, 0.15, 1.3, 0.01, tries=(0.15, 0.3, -0.15), when=("hold", ("held", "clamped"))
    )
    foot: Literal["posts", "board", "block", "buried"] = choice("feet", "posts")
    panel_side: Literal["inside", "outside"] = choice("feet", "inside", when=("foot", ("posts",)))
    post: Annotated[str, row_of("posts", "post")] = item(
        "feet", "posts", "tpost_light_1.5", "post", when=("foot", ("posts",))
    )
    depth: float = measure("feet", "length", 0.60, 0.2, 1.2, 0.01, tries=DEEPER, when=("foot", ("posts",)))
    setting: Literal["driven", "tamped"] = choice("feet", "driven", when=("foot", ("posts",)))
    inset: float = measure("feet", "length", 0.125, 0.0, 0.3, 0.005, when=("foot", ("posts",)), asked=True)
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "feet", "ties", "clip_tpost", "mesh", when=("foot", ("posts",))
    )
    ties_per_post: int = measure("feet", "count", 2, 1, 6, 1, tries=(1, 2), when=("foot", ("posts",)))
    board: Annotated[str, row_of("posts", "rail")] = item(
        "feet", "posts", "post_lumber_38x140", "rail", when=("foot", ("board",))
    )
    cleat: Annotated[str, row_of("fittings", "foot")] = item(
        "feet", "fittings", "cleat_wood", "foot", when=("foot", ("board",))
    )
    courses: int = measure("feet", "count", 1, 1, 2, 1, tries=(1,), when=("foot", ("block",)))
    buried: float = measure("feet", "length", 0.25, 0.1, 0.6, 0.01, tries=DEEPER, when=("foot", ("buried",)))
    cover: Literal["none", "shade_50", "sheet"] = choice("cover", "none", asked=True)
    sling: Annotated[str, row_of("fittings", "sling")] = item("cover", "fittings", "sling_knotted", "sling")
    strung: Literal["none", "inside"] = choice("cover", "none", asked=True)
    string: Annotated[str, row_of("twines", "string")] = item(
        "cover", "twines", "sisal_2.5", "string", when=("strung", ("inside",))
    )
    sling_legs: int = measure("cover", "count", 2, 1, 4, 1, asked=True)
    sling_angle: float = measure("cover", "angle", 60.0, 20.0, 90.0, 5.0, asked=True)
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("cover", "ties", "twine_jute_3_loop", "stem")


class _Arch(Stand[PanelArchOptions]):
    """Everything a panel arch's checks need, worked out once for its cases."""

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.panel]

    @cached_property
    def hold(self) -> float:
        return arch_feet.held_at(self.options, self.site.bed)

    @cached_property
    def width(self) -> float:
        """Return the length of tunnel that one bent panel answers for. [m]"""
        return self.options.panel_width

    @cached_property
    def arc(self) -> float:
        """Return the length from foot to foot along it. [m]"""
        return self.options.panel_length

    @cached_property
    def legs(self) -> int:
        """Return the posts that hold one of them on each side."""
        return _LEGS

    @cached_property
    def figures(self) -> arches.Figures:
        stiffness = arches.bending_stiffness(self.mesh, self.options.panel_width)
        return arches.figures(
            self.options.panel_length, self.options.span, self.hold, stiffness, _clamped(self.options)
        )

    @cached_property
    def rise(self) -> float:
        return float(self.figures.rise) - arch_feet.sunk(self.options)

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one panel. [N]"""
        return self.mesh.kg_m2 * self.width * self.arc * tables.constant("gravity")

    @cached_property
    def hanging(self) -> Array:
        """Return the weight of crop on the fullest one. [N]"""
        middles = np.array(_middles(self.options))
        total = self.nothing
        for index, growth in enumerate(self.growths):
            count = tributary(middles, self.places(index), self.width / 2)
            area = self.width * self.arc * (1.0 if growth.planting.side == "both" else 0.5)
            total = total + crop.group_weight(growth, count, area, self.cases.crop)
        return np.asarray(total)

    @cached_property
    def upright(self) -> tuple[crop.Growth, ...]:
        """Return the plantings as the wind sees them: one side's leaves, as high as they have climbed."""
        shape, growths = _shape(self.options, self.site), []
        for index, planting in enumerate(self.structure.plantings):
            one = planting.model_copy(update={"side": "right"})
            course = crop.planting_on_face(one, self.season, index, self.geometry.climb)
            growths.append(
                replace(course, top=np.minimum(bent_panel.height_at(shape, self.arc, course.top), self.rise))
            )
        return tuple(growths)

    @cached_property
    def wind(self) -> face.FaceWind:
        solidity = wind.mesh_solidity(self.mesh.wire, self.mesh.along, self.mesh.up)
        if self.options.cover != "none":
            solidity = float(wind.mixed_solidity(solidity, tables.covers()[self.options.cover].solidity))
        return face.wind_on_face(self.upright, solidity, 0.0, self.rise, self.cases)

    @cached_property
    def across(self) -> Array:
        """Return the wind across one of them. [N]"""
        return np.asarray(self.wind.force * self.width)

    @cached_property
    def push(self) -> Array:
        """Return the greatest outward push at one side's ties, one half loaded and the other bare. [N]"""
        one_side = self.figures.tie_gain * self.hanging / (self.options.panel_length / 2) / 2
        upright, loaded = self.figures.tie, self.figures.tie + one_side
        return np.asarray(np.where(np.abs(loaded) > np.abs(upright), loaded, upright))

    @cached_property
    def lever(self) -> Array:
        """Return the height at which one of them bends its posts. [m]"""
        return np.full((1, 1, 1), max(self.hold, 0.05))

    @cached_property
    def foot_push(self) -> Array:
        """Return the outward push of a foot itself, below its ties. [N]"""
        return self.figures.foot

    @cached_property
    def feet(self) -> arch_feet.ArchFeet:
        """Return what comes to the feet of one of them."""
        along = (self.wind.end + self.wind.skin * _total(self.options)) * 2
        lift = arches.lifted(self.across, self.wind.height, self.bare_weight, self.options.span)
        return arch_feet.ArchFeet(
            self.hold, self.legs, self.width, self.push, self.foot_push, self.across, along, lift, self.lever
        )

    @cached_property
    def give(self) -> Array:
        """Return how far the crown moves over because the posts do. [m]"""
        return arch_feet.give(self, self.options, self.feet, self.rise)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        feet = arch_feet.links(self, self.options, self.feet, self.buried)
        links = self.carried(feet[0].key)
        if self.options.strung == "inside":
            twine, stem = tables.twines()[self.options.string], tables.ties()[self.options.stem_tie]
            links = [
                *hung.string_links(
                    self, self.wind.pressure, self.wind.leaf_height, twine, stem, None, None, links[0].key
                ),
                *links,
            ]
        heaviest = max(tables.crops()[p.crop].fruit_heaviest_kg for p in self.structure.plantings)
        if heaviest > plants.HEAVY:
            row = tables.fittings()[self.options.sling]
            check = arches.sling(
                row,
                heaviest,
                self.options.sling_legs,
                math.radians(self.options.sling_angle),
                self.cases.crop,
            )
            checks = (check, mesh_checks.weld(self.mesh, check.demand))
            links.insert(
                0,
                Link(
                    "sling",
                    (),
                    ("fittings", row.key),
                    (links[0].key,),
                    ("sling", "sling_legs", "sling_angle"),
                    check.demand,
                    checks,
                ),
            )
        return (*links, *feet)

    def carried(self, first: str) -> list[Link]:
        """Return what carries the crop to its feet, of which the first link is named."""
        if self.options.panels == 1:
            return [self._panel((first,))]
        return [self._panel(("lap", first)), self._lap(first)]

    def _panel(self, below: tuple[str, ...]) -> Link:
        weight = (self.hanging + self.bare_weight) / self.options.panel_length
        heavy = arches.crown(self.figures, self.bare_weight, self.hanging, self.options.panel_length)
        above = np.maximum(self.wind.height - self.hold, 0.1)
        blown = arches.blown(
            arches.wires_bear(self.mesh, self.options.panel_width),
            self.across,
            above,
            4.0 if self.hold else 2.0,
            weight,
            self.figures,
        )
        checks = (arches.sway(self.figures, weight), heavy, arches.bend(self.figures, self.mesh), blown)
        crown = (self.options.panel_width / 2, 0.0, self.rise)
        return Link(
            "panel",
            keys(self.geometry.by_role("panel")),
            ("meshes", self.mesh.key),
            below,
            ("hold_height", "hold", "foot", "span"),
            self.hanging + self.bare_weight,
            checks,
            (Arrow(crown, (0.0, 0.0, -1.0)),),
        )

    def _lap(self, below: str) -> Link:
        tie, count = tables.ties()[self.options.lap_tie], _lap_ties(self.options)
        return Link(
            "lap",
            tuple(m.key for m in self.geometry.by_role("tie") if m.key.startswith("lap")),
            ("ties", tie.key),
            (below,),
            ("lap_tie",),
            self.across * tables.constant("lap_share"),
            (arches.lap(tie, self.across, count, self.tied_on),),
        )

    def buried(self, force: Array) -> tuple[Check, ...]:
        """Return the checks of the wires' ends in the soil, which push aside so much of it."""
        wires = max(math.floor(self.options.panel_width / self.mesh.up + 1e-6), 2)
        return footings.buried(
            self.ground, self.mesh.wire, wires, self.options.buried, force, self.feet.lift, self.cases
        )

    def service(self) -> tuple[Service, ...]:
        """Return the sway of the crown in the wind, how far it comes down, and how far it moves over when one
        side is bare.
        """
        load = self.hanging / self.options.panel_length
        levers = ("hold_height", "post", "depth")
        return (
            Service(
                "arch-lean", self.give, self.rise / tables.constant("sway_limit"), "handbook-4.2", levers
            ),
            Service(
                "crown-drop",
                np.asarray(np.maximum(self.figures.drop * load, 0.0)),
                self.options.span / tables.constant("rail_sag_limit") * 2,
                "handbook-8.5",
                levers,
            ),
            Service(
                "one-side-shift",
                np.asarray(np.abs(self.figures.shift * load)),
                self.rise / tables.constant("belly_limit"),
                "handbook-8.5",
                levers,
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across all panels, and what the feet of each take of it. [N]"""
        count = len(_middles(self.options))
        return self.wind.force * self.width * count, self.feet.blown * (2 * self.legs * count)


class _TubeArch(_Arch):
    """Tube arches as they are bought, joined by mesh up their sides and lines over their tops."""

    @cached_property
    def tube(self) -> rows.Post:
        return tables.posts()[self.options.tube]

    @cached_property
    def width(self) -> float:
        return self.options.arch_spacing * (1.0 if self.options.arches > 2 else 0.5)

    @cached_property
    def arc(self) -> float:
        return tube_arch.arc_length(_shape(self.options, self.site))

    @cached_property
    def legs(self) -> int:
        return 1

    @cached_property
    def rise(self) -> float:
        return self.options.tube_rise

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of one arch and its mesh. [N]"""
        mesh = self.mesh.kg_m2 * self.width * 2 * min(self.options.clad, self.arc / 2)
        return (self.tube.kg_m * self.arc + mesh) * tables.constant("gravity")

    @cached_property
    def push(self) -> Array:
        """Return how all the fruit at the crown spreads the legs. [N]"""
        return arches.spread(self.hanging + self.bare_weight)

    @cached_property
    def foot_push(self) -> Array:
        return self.nothing

    @cached_property
    def stiff(self) -> float:
        """Return the height up to which posts keep the legs upright. [m]"""
        return self.hold if self.options.foot == "posts" and self.hold > _STIFF else 0.0

    @cached_property
    def lever(self) -> Array:
        """Return the height at which the legs bend their posts: they bend both ways above them, turning half
        way up. [m]
        """
        return np.asarray(
            self.stiff + np.maximum(self.wind.height - self.stiff, 0.1) / (2 if self.stiff else 1)
        )

    def carried(self, first: str) -> list[Link]:
        """Return mesh, lines and tube."""
        tie, wire = tables.ties()[self.options.clad_tie], tables.wires()[self.options.over_wire]
        count = tube_arch.ties_per_tube(self.options.clad)
        clads = tuple(m.key for m in self.geometry.by_role("tie") if m.key.startswith("clad"))
        crown = (self.geometry.length / 2, 0.0, self.rise)
        weight = self.hanging + self.bare_weight
        tube = Link(
            "tube",
            keys(self.geometry.by_role("arm")),
            ("posts", self.tube.key),
            (first,),
            ("tube", "arch_spacing", "hold_height"),
            weight,
            (
                arches.tube(
                    self.tube, self.across, self.wind.height, weight, self.options.span, self.rise, self.stiff
                ),
                arches.tube_sway(self.tube, weight, self.rise, self.stiff),
            ),
            (Arrow(crown, (0.0, 1.0, 0.0)),),
        )
        checks = [ties.mesh_tie(tie, self.across, self.hanging / count, count, self.tied_on)]
        if over := keys(self.geometry.by_role("wire")):
            bay = self.options.arch_spacing
            down = self.hanging * tables.constant("crown_share") / self.width / len(over)
            checks.append(tension.main_wire(wire, down, 0.0 * down, bay, arches.over_pull(down, bay)))
        levers = ("clad_tie", "over_wire", "arch_spacing")
        return [
            Link("clad", (*clads, *over), ("ties", tie.key), ("tube",), levers, self.across, tuple(checks)),
            tube,
        ]

    def buried(self, force: Array) -> tuple[Check, ...]:
        """Return the checks of the legs in the soil: what pushes them aside, and what lifts them."""
        height = np.full((1, 1, 1), 0.05)
        strength = self.cases.soil_strength(self.ground.native)
        return (
            embedment.grip(
                "soil-grip", self.ground, self.tube, self.options.buried, force, height, self.cases
            ),
            tension.uplift(self.tube, self.ground, self.options.buried, self.feet.lift, strength),
        )

    def service(self) -> tuple[Service, ...]:
        """Return the sway of the crown in the wind."""
        lean = self.give + self.across * arches.tube_sway_per_force(
            self.tube, self.wind.height, self.rise, self.stiff
        )
        return (
            Service(
                "arch-lean",
                np.asarray(lean),
                self.rise / tables.constant("sway_limit"),
                "handbook-9.5",
                ("tube", "arch_spacing"),
            ),
        )


def _headroom(
    wanted: Mapping[str, float], options: PanelArchOptions, structure: Structure, site: Site
) -> tuple[Way, ...]:
    """Return the panel as it is bought, and one cut or joined to measure, that leave so much clear over such
    a path.

    Source: handbook-8.8
    """
    if options.frame == "tubes":
        return ()  # its rise is its maker's
    mesh, hang = tables.meshes()[options.panel], _hang(structure)
    sunk = arch_feet.sunk(options)
    reach = bent_panel.Reach(wanted["path"], wanted["clear"] + hang + sunk)
    hold = arch_feet.held_at(options, site.bed)
    held = (
        (hold, *(h for h in _HOLDS if h > hold))
        if options.foot == "posts" and options.hold == "held"
        else (hold,)
    )
    squares = np.arange(math.ceil(2.0 / mesh.along), math.floor(6.1 / mesh.along) + 1) * mesh.along
    cut = [x for x in squares.tolist() if all(abs(x - sold) > mesh.along / 2 for sold in mesh.lengths_m)]
    ways = []
    for key, lengths in (("bought", [x for x in mesh.lengths_m if 2.0 <= x <= 6.1]), ("cut", cut)):
        bent = bent_panel.reaching(reach, lengths, np.array(held))
        if bent is None:
            continue
        clear = bent.rise - sunk - hang
        values = {name: (v, "length") for name, v in {**bent._asdict(), "clear": clear, "hang": hang}.items()}
        changes = {
            "panel_length": bent.length,
            "span": bent.span,
            **({"hold_height": bent.hold} if len(held) > 1 else {}),
        }
        name = "longer" if key == "cut" and bent.length > max(mesh.lengths_m) else key
        reaches = clear >= wanted["clear"] - 5e-3
        says = (name, *(("held",) if len(held) > 1 else ()), "clear", *(() if reaches else ("most",)))
        ways.append(Way(says, reaches, changes, values))
    return tuple(sorted(ways, key=lambda way: not way.reaches))


class PanelArch(Family[PanelArchOptions]):
    """Panels bent over."""

    key: ClassVar[str] = "panel-arch"
    options = PanelArchOptions
    wishes: ClassVar[tuple[Wish, ...]] = (
        Wish(
            "headroom",
            (Ask("clear", "length", 1.8, 1.2, 2.4, 0.01), Ask("path", "length", 1.2, 0.6, 2.4, 0.01)),
            _headroom,
        ),
    )

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return an arch for a crop on a bed, every value with its reason."""
        panel = tables.meshes()["panel_large"]
        width, overlap = panel.heights_m[0], 0.20
        row = plants.sown(need, site, longest=6 * width)
        panels = max(min(math.ceil((row.length - overlap - 0.3) / (width - overlap)), 6), 1)
        while panels > 1 and panels * width - (panels - 1) * overlap > site.bed.length + 1e-6:
            panels -= 1
        over_bed = site.bed.raised_by > 0.1 and 0.8 <= site.bed.width <= 2.2
        span = round(site.bed.width - 0.02, 2) if over_bed else 1.22
        fill = site.bed.raised_by
        depth = min(max(0.60, math.ceil((fill + 0.45) * 20) / 20), 1.2)
        post = next(
            (
                key
                for key in ("tpost_light_1.5", "tpost_light_1.8", "tpost_2.1")
                if max(tables.posts()[key].lengths_m) >= depth + 0.91
            ),
            "tpost_2.4",
        )
        options = PanelArchOptions(panels=panels, span=span, depth=depth, post=post)
        total = _total(options)
        lines = 2 if need.side == "both" else 1
        apart = row.plantings[0].spacing
        room = max(math.floor((total - 2 * tables.constant("row_end_clear")) / apart + 1e-6) + 1, 1) * lines
        planting = row.plantings[0].model_copy(update={"count": min(need.count or room, 600)})
        rise = float(arches.figures(4.88, span, 0.91, arches.bending_stiffness(panel, width)).rise)
        reasons = {
            **{name: reason for name, reason in row.reasons.items() if name != "length"},
            planting.path("count"): Reason(
                "count_asked" if need.count else "count", {"count": (planting.count, "count")}
            ),
            "panel": Reason("arch_panel", words={"crop": row.crop.name}),
            "frame": Reason("frame"),
            "panel_length": Reason("panel_length", {"rise": (rise, "length"), "span": (span, "length")}),
            "panel_width": Reason("panel_width"),
            "panels": Reason("panels", {"count": (panels, "count"), "length": (total, "length")}),
            "span": Reason("span_bed" if over_bed else "span", {"span": (span, "length")}),
            "hold": Reason("hold"),
            "foot": Reason("foot"),
            "cover": Reason("cover"),
            "strung": Reason("strung"),
            "sling": Reason("sling", {"fruit": (row.crop.fruit_heaviest_kg, "mass")}),
            "sling_legs": Reason("sling_legs"),
            "sling_angle": Reason("sling_angle"),
            "stem_tie": Reason("stem_tie"),
        }
        return Proposal(options, (planting,), reasons)

    def geometry(self, options: PanelArchOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return panels, feet, ties and plants in metres."""
        mesh, shape, hold = (
            tables.meshes()[options.panel],
            _shape(options, site),
            arch_feet.held_at(options, site.bed),
        )
        members, total = [], _total(options)
        if options.frame == "tubes":
            stations, sunk = _middles(options), arch_feet.sunk(options)
            tube, over = tables.posts()[options.tube], options.over_wire
            members += tube_arch.members(
                tube, mesh, options.clad_tie, over, shape, stations, options.clad, sunk, options.over_gap
            )
            for n, x in enumerate(stations):
                members += arch_feet.members(options, n, (x,), (x - 0.15, x + 0.15), hold)
        for n, x in enumerate(_starts(options)):
            members.append(
                bent_panel.member(mesh, n + 1, shape, options.panel_length, options.panel_width, x)
            )
            edges = (x + options.inset, x + options.panel_width - options.inset)
            members += arch_feet.members(options, n, edges, (x, x + options.panel_width), hold)
        for n, x in enumerate(_starts(options)[1:]):
            along = np.linspace(0, len(shape) - 1, _lap_ties(options)).round().astype(int)
            members += [
                Member(
                    f"lap-{n + 1}-{i + 1}",
                    "tie",
                    "ties",
                    options.lap_tie,
                    ((x + options.overlap / 2, *shape[k]),),
                    shape="point",
                )
                for i, k in enumerate(along)
            ]
        offset = _planted_at(options, site)
        grown = tuple(
            Plant(p.at, p.planting, bent_panel.way_up(shape, p.at[0], math.copysign(1.0, p.at[1]), p.at))
            for p in plants.along(plantings, total, offset)
        )
        rise = max(z for _, z in shape)
        if options.strung == "inside":
            grown = _strung(options, grown, rise)
            members += [
                Member(
                    f"string-{n + 1}",
                    "string",
                    "twines",
                    options.string,
                    (p.way[-1], (p.at[0], p.at[1], 0.05)),
                    round(math.dist(p.way[-1], p.at) + 0.4, 3),
                    0.002,
                )
                for n, p in enumerate(grown)
            ]
        dimensions = (
            Dimension(
                "options.span", "end", (0, -options.span / 2, 0), (0, options.span / 2, 0), options.span, -0.6
            ),
            *(
                (
                    Dimension(
                        "options.hold_height",
                        "end",
                        (0, options.span / 2, 0),
                        (0, options.span / 2, hold),
                        hold,
                        0.8,
                    ),
                )
                if options.foot == "posts" and options.hold != "free"
                else ()
            ),
            *(
                (
                    Dimension(
                        "options.depth",
                        "end",
                        (0, options.span / 2, -options.depth),
                        (0, options.span / 2, 0),
                        options.depth,
                        0.8,
                    ),
                )
                if options.foot == "posts"
                else ()
            ),
            _bay(options, rise),
        )
        depth = options.depth if options.foot == "posts" else 0.0
        return Geometry(
            located(members),
            grown,
            (*dimensions, *plants.spacing_dimension(plantings, grown, offset + 0.2)),
            _supplies(options, plantings, _arc(options, site)),
            total,
            rise,
            depth,
            climb=_arc(options, site) / 2,
        )

    def loaded(
        self, options: PanelArchOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Arch:
        """Return the arch under the loads of the cases."""
        kind = _Arch if options.frame == "sprung" else _TubeArch
        return kind(options, geometry, structure, site, cases)

    def remarks(
        self, options: PanelArchOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: head height above all, and the spring that a bent panel is."""
        mesh, hold = tables.meshes()[options.panel], arch_feet.held_at(options, site.bed)
        found_ = arches.figures(
            options.panel_length,
            options.span,
            hold,
            arches.bending_stiffness(mesh, options.panel_width),
            _clamped(options),
        )
        rise = geometry.top
        remarks = fits.of_ground(site.bed, 0.0, options.depth if options.foot == "posts" else 0.0)
        sprung = options.frame == "sprung"
        if sprung and not arches.fits(options.panel_length, options.span, hold, _clamped(options)):
            values = {
                "length": (options.panel_length, "length"),
                "span": (options.span, "length"),
                "hold": (hold, "length"),
            }
            remarks.append(
                Remark(
                    "arch-impossible",
                    "wrong",
                    values,
                    source="handbook-8.2",
                    levers=("span", "panel_length", "hold_height"),
                )
            )
        hang = _hang(structure)
        clear = rise - hang
        values = {
            "rise": (rise, "length"),
            "clear": (clear, "length"),
            "hang": (hang, "length"),
            "wide": (_width_at(options, site, _HEAD), "length"),
            "head": (_HEAD, "length"),
            "set": (tables.constant("set_rise"), "length"),
        }
        level: Literal["fine", "watch"] = "fine" if clear >= tables.constant("headroom_least") else "watch"
        remarks.append(
            Remark(
                "arch-headroom" if level == "fine" else "arch-duck",
                level,
                values,
                source="handbook-8.3",
                levers=("panel_length", "span"),
            )
        )
        remarks.append(Remark("arch-width" if sprung else "arch-wide", "fine", values, source="handbook-8.3"))
        if sprung:
            remarks += _sprung(found_, mesh)
        if sprung and options.foot != "posts" and options.hold == "held" and hold < 0.3:
            remarks.append(
                Remark(
                    "arch-low-hold",
                    "watch",
                    {"hold": (hold, "length")},
                    source="handbook-8.5",
                    levers=("foot",),
                )
            )
        if options.cover != "none":
            remarks.append(Remark("cover-off", "watch", source="handbook-parts-2.2", levers=("cover",)))
        tie = tables.ties()[options.tie]
        if options.foot == "posts" and tie.fits == "tee" and tables.posts()[options.post].shape != "tee":
            remarks.append(
                Remark(
                    "clip-misfit",
                    "wrong",
                    words={"tie": tie.name, "post": tables.posts()[options.post].name},
                    source=tie.source,
                    levers=("tie",),
                )
            )
        for planting in structure.plantings:
            remarks += [
                *fits.of_through(planting, mesh),
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, _total(options)),
            ]
            remarks += fits.of_face(planting, _total(options) * _arc(options, site))
            heaviest = tables.crops()[planting.crop].fruit_heaviest_kg
            if heaviest > plants.HEAVY:
                remarks.append(
                    Remark("slings", "fine", {"fruit": (heaviest, "mass")}, source="handbook-parts-4.5")
                )
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of building an arch of these members."""
        cautions = ["services", "driving"] if geometry.by_role("post") else []
        return (
            *cautions,
            *(("spring",) if geometry.by_role("panel") else ()),
            "cut-ends",
            "hanging-fruit",
            "climb",
            "judgement",
        )


def _sprung(figures: arches.Figures, mesh: rows.Mesh) -> list[Remark]:
    """Return what is to be said of a panel that is bent by hand."""
    push, energy = float(np.abs(figures.foot + figures.tie)), float(figures.energy)
    said = [
        Remark(
            "arch-spring",
            "watch",
            {"push": (push, "force"), "energy": (energy, "count")},
            source="handbook-8.6",
        )
    ]
    gentle = tables.constant("bend_gentle") * mesh.wire
    if float(figures.radius) < gentle:
        radius = {"radius": (float(figures.radius), "length"), "gentle": (gentle, "length")}
        said.append(
            Remark(
                "arch-sharp", "watch", radius, {"mesh": mesh.name}, "handbook-8.4", ("span", "panel_length")
            )
        )
    return said


def _hang(structure: Structure) -> float:
    """Return how far below the crown fruit and leaves hang. [m]"""
    heavy = any(tables.crops()[p.crop].fruit_heaviest_kg > plants.HEAVY for p in structure.plantings)
    return tables.constant("hang" if heavy else "hang_small")


def _shape(options: PanelArchOptions, site: Site) -> bent_panel.Curve:
    """Return the curve of the panels above the soil; where no such bend is possible, a half ellipse that only
    shows so.
    """
    if options.frame == "tubes":
        return tube_arch.curve(options.span, options.tube_rise)
    hold, sunk = arch_feet.held_at(options, site.bed), arch_feet.sunk(options)
    if not arches.fits(options.panel_length, options.span, hold, _clamped(options)):
        angles = np.linspace(math.pi, 0.0, 61)
        rise = max((options.panel_length - options.span) / 2, 0.3)
        return tuple((options.span / 2 * math.cos(a), rise * math.sin(a)) for a in angles)
    return tuple(
        (y, z - sunk)
        for y, z in bent_panel.curve(options.panel_length, options.span, hold, _clamped(options))
    )


def _clamped(options: PanelArchOptions) -> bool:
    """Return whether posts hold it straight all the way up: boards and blocks are too low for it."""
    return options.hold == "clamped" and options.foot == "posts"


def _starts(options: PanelArchOptions) -> list[float]:
    """Return where the panels start along the tunnel; none where tubes stand. [m]"""
    count = options.panels if options.frame == "sprung" else 0
    return [n * (options.panel_width - options.overlap) for n in range(count)]


def _middles(options: PanelArchOptions) -> list[float]:
    """Return the middles of what is bent, along the tunnel. [m]"""
    if options.frame == "sprung":
        return [x + options.panel_width / 2 for x in _starts(options)]
    return [n * options.arch_spacing for n in range(options.arches)]


def _total(options: PanelArchOptions) -> float:
    """Return the length of the tunnel. [m]"""
    if options.frame == "tubes":
        return (options.arches - 1) * options.arch_spacing
    return options.panels * options.panel_width - (options.panels - 1) * options.overlap


def _arc(options: PanelArchOptions, site: Site) -> float:
    """Return the length from foot to foot along the arch. [m]"""
    return options.panel_length if options.frame == "sprung" else tube_arch.arc_length(_shape(options, site))


def _planted_at(options: PanelArchOptions, site: Site) -> float:
    """Return how far from the middle the plants stand: outside the feet, or inside them where a bed's soil
    ends there. [m]
    """
    outside, edge = options.span / 2 + plants.OFFSET, site.bed.width / 2
    if site.bed.raised_by <= 0.1 or outside <= edge:
        return outside
    return max(min(edge, options.span / 2) - plants.OFFSET, 0.05)


def _bay(options: PanelArchOptions, rise: float) -> Dimension:
    """Return the measure of one panel, or from tube to tube."""
    name, wide = (
        ("panel_width", options.panel_width)
        if options.frame == "sprung"
        else ("arch_spacing", options.arch_spacing)
    )
    return Dimension(f"options.{name}", "elevation", (0, 0, rise), (wide, 0, rise), wide, 0.5)


def _lap_ties(options: PanelArchOptions) -> int:
    return math.ceil(options.panel_length / _LAP_EVERY) + 1


def _width_at(options: PanelArchOptions, site: Site, height: float) -> float:
    """Return how wide the arch is at a height. [m]"""
    return 2 * bent_panel.half_width_at(_shape(options, site), height)


def _strung(options: PanelArchOptions, grown: tuple[Plant, ...], rise: float) -> tuple[Plant, ...]:
    """Return the plants inside the arch, each at a string from its foot to the panel beside the crown."""
    strung = []
    for plant in grown:
        x, side = plant.at[0], math.copysign(1.0, plant.at[1])
        at = (x, side * max(options.span / 2 - _STRING_IN, 0.05), 0.0)
        strung.append(Plant(at, plant.planting, (at, (x, side * _STRING_TOP * options.span, rise - 0.05))))
    return tuple(strung)


def _supplies(options: PanelArchOptions, plantings: tuple[Planting, ...], arc: float) -> tuple[Supply, ...]:
    bare = tables.constant("stripped_pruned")
    return (
        *plants.stem_ties(plantings, options.stem_tie, arc / 2, bare),
        *plants.slings(plantings, options.sling),
    )
