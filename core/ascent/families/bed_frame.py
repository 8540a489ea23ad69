"""Bed frame: uprights screwed to the boards of a raised bed, one for each plant, joined over the bed; nothing
is driven.
"""

from __future__ import annotations

import math
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, boards, embedment, tension
from ..checks import mesh as mesh_checks
from ..family.options import choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, beam, relief, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, Supply, keys, located
from ..path.loadpath import Arrow, Check, Link, Remark, Service, Strength
from ..patterns import mesh_face, plants, posts
from ..patterns import strings as hung
from ..patterns.stand import PostRow
from ..plan.model import BareBed, Planting, Site, Structure, Typed
from ..remarks import fits

_RIM = 0.03  # of the boards over the soil in the bed [m], parts handbook 3.11
_FIRST_SCREW = (
    0.025  # from the edge of a board [m], parts handbook 4.10: 0.09 apart at most on a board of 0.14
)
_FROM_BOARD = 0.25  # of a plant from its board [m], parts handbook 3.11
_BACKING_DEPTH = 0.45  # of a backing stake [m]
_OWN_BOARD = ("post_lumber_38x140", 0.280, 0.038)  # two boards high, of a frame that brings its own
_BESIDE = 0.10  # of a plant's weight from its upright [m]
_INSET = 0.15  # of the first upright from the end of the row [m]
_LEAST_BOARD = 0.12  # to take two rows of screws [m]


class BedFrameOptions(Typed):
    """What must be decided of a frame on a bed. Lengths in metres."""

    length: float = measure("row", "length", 2.4, 0.4, 12.0, 0.05, asked=True)
    sides: Literal["one", "both"] = choice("row", "both", asked=True)
    post: Annotated[str, row_of("posts", "frame")] = item("posts", "posts", "post_sw_stake_38", "frame")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, asked=True)
    height: float = measure("posts", "length", 1.5, 0.5, 2.4, 0.01, tries=(-0.15, -0.3), asked=True)
    post_spacing: float = measure("posts", "length", 0.60, 0.3, 1.5, 0.01, tries="bays")
    crossbar: Literal["none", "top", "top-mid"] = choice("posts", "top", when=("sides", ("both",)))
    infill: Literal["none", "strings", "mesh"] = choice("crop", "none", asked=True)
    mesh: Annotated[str, row_of("meshes")] = item("crop", "meshes", "panel_large", when=("infill", ("mesh",)))
    tie: Annotated[str, row_of("ties", "mesh")] = item(
        "crop", "ties", "tie_wire_16_double", "mesh", when=("infill", ("mesh",))
    )
    string: Annotated[str, row_of("twines", "string")] = item(
        "crop", "twines", "pp_greenhouse", "string", when=("infill", ("strings",))
    )
    rail: Annotated[str, row_of("posts", "rail")] = item(
        "crop", "posts", "post_sw_stake_38", "rail", when=("infill", ("strings",))
    )
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("crop", "ties", "twine_jute_3_loop", "stem")
    boards: Literal["bed", "own"] = choice("board", "bed", asked=True)
    screw: Annotated[str, row_of("fittings", "board")] = item("board", "fittings", "screw_64", "board")
    screw_rows: int = measure("board", "count", 2, 2, 3, 1, tries=(1,))
    screw_gap: float = measure("board", "length", 0.15, 0.05, 0.3, 0.01, tries=(0.03, 0.05, 0.1))
    backing: Literal["none", "stakes", "ties"] = choice("board", "none")
    backing_step: float = measure(
        "board", "length", 1.2, 0.4, 2.4, 0.05, tries=(-0.3, -0.6), when=("backing", ("stakes", "ties"))
    )
    stake: Annotated[str, row_of("posts", "stake")] = item(
        "board", "posts", "post_sw_stake_38", "stake", when=("backing", ("stakes",))
    )
    brace: Literal["none", "diagonal"] = choice("board", "none")
    brace_wire: Annotated[str, row_of("wires")] = item(
        "board", "wires", "wire_soft_14", when=("brace", ("diagonal",))
    )
    set_late: int = measure("row", "count", 0, 0, 90, 1, asked=True)


class _Framed(PostRow[BedFrameOptions]):
    """Everything the checks of a bed frame need, worked out once for its cases."""

    @cached_property
    def xs(self) -> Array:
        """Return the stations of the uprights, (n,). [m]"""
        return _stations(self.options)

    @cached_property
    def bay(self) -> float:
        """Return the length of row that an upright answers for. [m]"""
        return self.options.length / len(self.xs) if len(self.xs) < 2 else float(self.xs[1] - self.xs[0])

    @cached_property
    def board(self) -> tuple[float, float]:
        """Return thickness and height of the boards. [m]"""
        return _board(self.options, self.site.bed)

    @cached_property
    def joined(self) -> bool:
        """Return whether two uprights stand together over the bed."""
        return self.options.sides == "both" and self.options.crossbar != "none"

    @cached_property
    def wind(self) -> face.FaceWind:
        solid = 0.0
        if self.options.infill == "mesh":
            mesh = tables.meshes()[self.options.mesh]
            solid = float(wind.mesh_solidity(mesh.wire, mesh.along, mesh.up))
        return face.wind_on_face(self.growths, solid, 0.0, self.options.height, self.cases)

    @cached_property
    def broad(self) -> float:
        """Return the width of leaf that an upright answers for: a whole bay where something fills it, else
        its own plant. [m]
        """
        if self.options.infill != "none":
            return self.bay
        return min(
            self.bay,
            max(s.crop.depth_m for s in self.growths)
            * max(1.0, self.bay / max(s.planting.spacing for s in self.growths)),
        )

    @cached_property
    def onto(self) -> Array:
        """Return the wind on one upright: the one behind shares with it where a bar joins them over the bed.
        [N]
        """
        shared = (1.0 + tables.constant("follower")) / 2 if self.joined else 1.0
        return np.asarray(self.wind.force * self.broad * shared)

    @cached_property
    def weight(self) -> Array:
        """Return what hangs on one upright: a good plant. [N]"""
        return self.crop_weight(self.xs, self.bay / 2, self.bay)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind that bends one upright over its board and where it acts, [N] and [m]: a bar over
        the bed halves it.
        """
        return np.asarray(self.onto * (0.5 if self.joined else 1.0)), np.asarray(
            np.maximum(self.wind.height - _RIM, 0.05)
        )

    @cached_property
    def moment(self) -> Array:
        """Return the moment of an upright at its board: wind, and a plant that hangs beside it. [N·m]"""
        force, lever = self.blown
        return np.asarray(force * lever * self.amplified + self.beside)

    @cached_property
    def amplified(self) -> Array:
        return self.amplified_by(self.weight, self.options.height)

    @cached_property
    def beside(self) -> Array:
        """Return the moment of a plant that hangs beside its upright. [N·m]"""
        return np.asarray(self.weight * _BESIDE)

    @cached_property
    def on_board(self) -> Array:
        """Return the moment of all uprights on one board about its foot. [N·m]"""
        return np.asarray((self.moment + self.onto * self.board[1] / 2) * len(self.xs))

    @cached_property
    def backed(self) -> Strength:
        """Return the moment that stakes or ties behind a board hold. [N·m]"""
        count = max(math.floor(self.options.length / self.options.backing_step + 1e-6), 1)
        high = self.board[1]
        if self.options.backing == "ties":
            screws = tables.fittings()["screws_76_pair"]
            working = np.full((1, 1, 1), count * screws.working_N * high)
            return Strength(working, working * screws.median)
        if self.options.backing == "stakes":
            stake, at = tables.posts()[self.options.stake], np.full((1, 1, 1), 0.8 * high)
            held, bears = (
                embedment.strength(embedment.beside(self.ground), stake, _BACKING_DEPTH, at, self.cases),
                bending.moments(stake),
            )
            return Strength(
                np.asarray((count + 1) * np.minimum(held.allowed * at, bears.allowed)),
                np.asarray((count + 1) * np.minimum(held.median * at, bears.median)),
            )
        return Strength(self.nothing, self.nothing)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        side = (
            Arrow(
                (float(self.xs[0]), _edge(self.options, self.site.bed), min(self.options.height, 1.0)),
                (0.0, 1.0, 0.0),
            ),
        )
        high = self.board[1]
        free = (
            self.options.length
            if self.options.backing == "none"
            else min(self.options.backing_step, self.options.length)
        )
        gap = self.options.screw_gap * (self.options.screw_rows - 1)
        screw = tables.fittings()[self.options.screw]
        bent: list[Check] = [
            bending.post_across(self.post, *self.blown, self.amplified),
            bending.lasting(self.post, self.beside),
        ]
        braced = self.options.brace == "diagonal"
        if not braced:
            bent.append(
                bending.racking(self.post, self._along, self.options.height, self._count, self.weight)
            )
        turned = [boards.pushed(self.board[0], high, self.onto / self.bay, free)]
        turned.append(boards.turned(tables.fittings()["screw_76"], self.on_board, high, self.backed))
        links = [
            Link(
                "upright",
                keys(self.geometry.by_role("post")),
                ("posts", self.post.key),
                ("screws", *(("brace",) if braced else ())),
                ("post", "crossbar", "post_spacing", "brace"),
                self.onto,
                tuple(bent),
                side,
            ),
            Link(
                "screws",
                keys(self.geometry.by_role("fitting")),
                ("fittings", screw.key),
                ("board",),
                ("screw_gap", "screw_rows", "screw", "crossbar", "post_spacing"),
                self.moment / gap,
                (bending.screwed(screw, self.moment, gap),),
            ),
            Link(
                "board",
                keys(self.geometry.by_role("grip")),
                None,
                ("bed",) if self.options.boards == "bed" else (),
                ("backing", "backing_step", "crossbar", "post_spacing"),
                self.onto,
                tuple(turned),
            ),
        ]
        return (*self._vines(), *links, *self._bed(), *(self._brace() if braced else ()))

    @cached_property
    def _count(self) -> int:
        return len(self.xs) * (2 if self.options.sides == "both" else 1)

    @cached_property
    def _along(self) -> Array:
        """Return the wind along the bed. [N]"""
        return np.asarray(
            (self.wind.end + self.wind.skin * self.options.length)
            / 2
            * (2 if self.options.sides == "both" else 1)
        )

    def _vines(self) -> list[Link]:
        """Return the links above the uprights: stem ties, strings with their rail, or mesh."""
        if self.options.infill == "strings":
            twine, rail = tables.twines()[self.options.string], tables.posts()[self.options.rail]
            strung = hung.string_links(
                self,
                self.wind.pressure,
                self.wind.leaf_height,
                twine,
                tables.ties()[self.options.stem_tie],
                None,
                None,
                "top-line",
            )
            down, across = self.weight / self.bay, tables.constant("string_share") * self.wind.force
            return [
                *strung,
                Link(
                    "top-line",
                    keys(self.geometry.by_role("rail")),
                    ("posts", rail.key),
                    ("upright",),
                    ("rail", "post_spacing"),
                    np.hypot(down, across) * self.bay,
                    (bending.rail(rail, down, across, self.bay),),
                ),
            ]
        if self.options.infill == "mesh":
            mesh = tables.meshes()[self.options.mesh]
            stiff = np.full((1, 1, 1), 3 * bending.stiffness(self.post) / (self.options.height / 2) ** 3)
            state = mesh_checks.in_wind(
                mesh,
                self.wind.pressure,
                self.bay,
                self.options.height,
                stiff,
                relief.tied_bays(max(len(self.xs) - 1, 1)),
            )
            checks: list[Check] = [mesh_checks.wire_tension(mesh, state, self.nothing, self.bay)]
            stems = self.stem_ties(self.options.stem_tie, self.wind.pressure, self.wind.leaf_height, "mesh")
            return [
                *stems,
                Link(
                    "mesh",
                    keys(self.geometry.by_role("mesh")),
                    ("meshes", mesh.key),
                    ("upright",),
                    ("mesh", "post_spacing"),
                    self.wind.force * self.bay,
                    tuple(checks),
                ),
            ]
        return self.stem_ties(
            self.options.stem_tie,
            self.wind.pressure,
            self.wind.leaf_height,
            "upright",
            ("TIE", "STAKE", "STALK", "WEAVE"),
        )

    def _bed(self) -> list[Link]:
        """Return the bed that the frame stands on by its weight."""
        if self.options.boards == "own":
            return []
        bed = self.site.bed
        fill = tables.soils()[bed.fill].gamma * bed.length * bed.width * max(bed.raised_by, 0.02)
        boards_ = 2 if self.options.sides == "both" else 1
        return [
            Link(
                "bed",
                (),
                None,
                (),
                ("post_spacing", "height"),
                self.onto * self._count,
                (boards.bed_tips(self.on_board * boards_, fill, bed.width),),
            )
        ]

    def _brace(self) -> list[Link]:
        wire, run = tables.wires()[self.options.brace_wire], max(min(self.bay * 2, self.options.length), 0.3)
        each = self._along / (2 if self.options.sides == "both" else 1)
        tight = each * math.hypot(run, self.options.height) / run
        return [
            Link(
                "brace",
                keys(self.geometry.by_role("guy")),
                ("wires", wire.key),
                ("board",),
                ("brace_wire",),
                tight,
                (
                    tension.brace_wire(wire, tight, each),
                    bending.pushed(
                        self.post,
                        each * self.options.height / run + self.weight,
                        self.options.height,
                        self.moment,
                    ),
                ),
            )
        ]

    def service(self) -> tuple[Service, ...]:
        """Return the lean of an upright's top: it bends over its board, and less where a bar joins two."""
        top = self.options.height
        height = np.maximum(self.wind.height, 0.1)
        bent = self.onto * beam.cantilever_tip(
            1.0, np.zeros((1, 1, 1)), np.minimum(2 * height, top), top, bending.stiffness(self.post)
        )
        play = self.moment / tables.constant("board_turn")
        return (self.lean_of(bent * (0.5 if self.joined else 1.0) + play * top, top),)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across the uprights of both sides, and what their screws take of it. [N]"""
        several = 1.0 if self.options.sides == "one" else 1.0 + tables.constant("follower")
        put_on = (
            self.wind.force
            * self.broad
            * len(self.xs)
            * (several if self.joined else 1.0 if self.options.sides == "one" else 2.0)
        )
        return put_on, self.onto * self._count


class BedFrame(Family[BedFrameOptions]):
    """Uprights on the boards of a bed."""

    key: ClassVar[str] = "bed-frame"
    options = BedFrameOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return a frame for a crop on a bed, every value with its reason."""
        bed, plant = site.bed, tables.crops()[need.crop]
        row = plants.sown(need, site, longest=12.0, shortest=0.4)
        boarded = bed.kind == "raised" and bed.board >= 0.03 and bed.raised_by + _RIM >= _LEAST_BOARD
        height = round(min(max(plant.support_height_m, 0.6), 2.1) * 20) / 20
        spacing = round(min(max(row.plantings[0].spacing, 0.45), 1.2), 2)
        high = bed.raised_by + _RIM if boarded else _OWN_BOARD[1]
        gap = round(min(max(math.floor((high - 2 * _FIRST_SCREW) * 100 + 1e-6) / 100, 0.05), 0.20), 2)
        fill = (
            "none"
            if plant.training in ("STALK", "STAKE", "TIE", "WEAVE", "CORRAL", "NONE")
            else "strings"
            if plant.habit == "twiner"
            else "mesh"
        )
        both = need.side == "both"
        wood = "post_sw_stake_38" if height <= 1.6 else "post_lumber_38x89"
        options = BedFrameOptions(
            length=row.length,
            sides="both" if both else "one",
            post=wood,
            height=height,
            post_spacing=spacing,
            infill=fill,
            crossbar="top" if both else "none",
            boards="bed" if boarded else "own",
            screw_gap=gap,
            backing="stakes" if not boarded else "none",
        )
        reasons = {
            **row.reasons,
            "sides": Reason("sides_both" if both else "sides_one"),
            "post_age": Reason("post_age"),
            "post": Reason("frame_post", {"height": (height, "length")}, {"post": tables.posts()[wood].name}),
            "height": Reason(
                "stake_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
            ),
            "post_spacing": Reason("upright_spacing", {"spacing": (spacing, "length")}),
            "infill": Reason(f"infill_{fill}", words={"crop": plant.name}),
            "stem_tie": Reason("stem_tie"),
            "boards": Reason("boards_bed" if boarded else "boards_own"),
            "screw": Reason("screw"),
            "screw_rows": Reason("screw_rows"),
            "screw_gap": Reason("screw_gap", {"gap": (gap, "length")}),
            "backing": Reason("backing" if boarded else "backing_own"),
            "brace": Reason("brace_short"),
            "set_late": Reason("frame_straddles"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: BedFrameOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return uprights, bars, screws, what fills them, and plants in metres."""
        xs, edge = _stations(options), _edge(options, site.bed)
        sides = _sides(options, plantings)
        members = _uprights(options, site.bed, xs, sides)
        members += _across(options, xs, edge)
        for side in sides:
            members += _filling(options, xs, side * edge)
            if options.brace == "diagonal":
                wire, run = tables.wires()[options.brace_wire], float(xs[min(2, len(xs) - 1)])
                line = ((float(xs[0]), side * edge, 0.05), (run, side * edge, options.height))
                members.append(
                    Member(
                        f"brace-{len(members)}",
                        "guy",
                        "wires",
                        wire.key,
                        line,
                        math.dist(*line) + 0.6,
                        wire.d,
                    )
                )
        grown = plants.along(plantings, options.length, max(site.bed.width / 2 - _FROM_BOARD, 0.05))
        if options.infill == "strings":
            at = {n: math.copysign(edge, plant.at[1]) for n, plant in enumerate(grown)}
            members += hung.members(options.string, grown, at, options.height)
            grown = hung.climbing(grown, at, options.height)
        elif options.infill == "mesh":
            grown = tuple(_up(p, (p.at[0], math.copysign(edge, p.at[1]), options.height)) for p in grown)
        else:
            grown = tuple(
                _up(
                    p,
                    (
                        float(xs[int(np.argmin(np.abs(xs - p.at[0])))]),
                        math.copysign(edge, p.at[1]),
                        options.height,
                    ),
                )
                for p in grown
            )
        count = len(xs) * len(sides)
        screws = count * options.screw_rows + (
            4 * len(xs) if options.crossbar != "none" and len(sides) == 2 else 0
        )
        supplies = [Supply("board-screws", "fittings", options.screw, screws)]
        loops = sum(
            p.count * plants.ties_on_stem(min(tables.crops()[p.crop].height_m, options.height) - 0.3)
            for p in plantings
        )
        if options.infill == "none":
            supplies.append(Supply("stem-ties", "ties", options.stem_tie, loops))
        else:
            supplies += plants.stem_ties(
                plantings, options.stem_tie, options.height, tables.constant("stripped_pruned")
            )
        end = options.length
        bay = float(xs[1] - xs[0]) if len(xs) > 1 else 0.0
        dimensions = (
            Dimension("options.length", "elevation", (0, 0, 0), (end, 0, 0), end, -0.9),
            Dimension(
                "options.height", "elevation", (end, 0, 0), (end, 0, options.height), options.height, 0.7
            ),
            *(
                (
                    Dimension(
                        "options.post_spacing",
                        "elevation",
                        (float(xs[0]), 0, options.height),
                        (float(xs[1]), 0, options.height),
                        bay,
                        0.5,
                    ),
                )
                if bay
                else ()
            ),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        return Geometry(
            located(members),
            grown,
            dimensions,
            tuple(supplies),
            end,
            options.height,
            0.0,
            climb=options.height,
        )

    def loaded(
        self, options: BedFrameOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Framed:
        """Return the frame under the loads of the cases."""
        return _Framed(options, geometry, structure, site, cases)

    def remarks(
        self, options: BedFrameOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: boards to screw to, sound and high enough; plants that already
        stand there.
        """
        bed = site.bed
        thick, high = _board(options, bed)
        remarks = fits.of_ground(bed, options.length, 0.0)
        if options.boards == "bed" and (bed.kind != "raised" or thick < 0.019):
            remarks.append(Remark("no-board", "wrong", source="handbook-13", levers=("boards",)))
        needed = options.screw_gap * (options.screw_rows - 1) + 2 * _FIRST_SCREW
        if needed > high + 1e-6:
            values = {"needed": (needed, "length"), "high": (high, "length")}
            remarks.append(
                Remark(
                    "board-low",
                    "wrong",
                    values,
                    source="handbook-parts-4.10",
                    levers=("screw_gap", "screw_rows"),
                )
            )
        if thick < 0.037:
            remarks.append(
                Remark(
                    "board-thin",
                    "watch",
                    {"thick": (thick, "length")},
                    source="handbook-parts-4.10",
                    levers=("boards",),
                )
            )
        remarks.append(Remark("board-sound", "watch", source="handbook-parts-4.10"))
        if options.set_late > 0:
            keep = min(0.10 + 0.0075 * options.set_late, 0.45)
            values = {"days": (options.set_late, "count"), "keep": (keep, "length")}
            key = "frame-spares-roots" if options.backing != "stakes" else "stakes-near-roots"
            remarks.append(
                Remark(
                    key,
                    "fine" if options.backing != "stakes" else "watch",
                    values,
                    source="handbook-parts-4.11",
                    levers=("backing",),
                )
            )
        if (
            options.infill == "strings"
            and options.length > 0
            and tables.posts()[options.post].key.startswith("cane")
        ):
            remarks.append(
                Remark(
                    "lashing-slides",
                    "watch",
                    {"slip": (tables.constant("cane_slip"), "force")},
                    {"pole": tables.posts()[options.post].name},
                    "handbook-13",
                    ("post",),
                )
            )
        for planting in structure.plantings:
            remarks += [
                *fits.of_suit(planting, self.key),
                *fits.of_row(planting, options.length),
                *fits.of_tying(planting),
            ]
            remarks += fits.of_height(planting, options.height, ("height",))
            if options.infill == "mesh":
                remarks += fits.of_through(planting, tables.meshes()[options.mesh])
        remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of screwing a frame to a bed."""
        return ("screw-tips", "straddle", "climb", "judgement")


def _stations(options: BedFrameOptions) -> Array:
    """Return where the uprights stand: from plant to plant, clear of the ends. [m]"""
    clear = max(options.length - 2 * _INSET, 0.0)
    bays = max(round(clear / options.post_spacing), 0)
    return np.linspace(_INSET, options.length - _INSET, bays + 1) if bays else np.array([options.length / 2])


def _board(options: BedFrameOptions, bed: BareBed) -> tuple[float, float]:
    """Return thickness and height of the boards that carry the frame. [m]"""
    if options.boards == "own":
        return _OWN_BOARD[2], _OWN_BOARD[1]
    return max(bed.board, 0.005), max(bed.raised_by + _RIM, 0.05)


def _edge(options: BedFrameOptions, bed: BareBed) -> float:
    """Return how far from the middle the uprights stand, outside the boards. [m]"""
    return bed.width / 2 + tables.posts()[options.post].a / 2


def _sides(options: BedFrameOptions, plantings: tuple[Planting, ...]) -> tuple[float, ...]:
    if options.sides == "both":
        return (1.0, -1.0)
    return (1.0,) if plantings[0].side == "left" else (-1.0,)


def _uprights(options: BedFrameOptions, bed: BareBed, xs: Array, sides: tuple[float, ...]) -> list[Member]:
    """Return the uprights with their screws, and the boards and stakes that a frame of its own brings."""
    post, edge, (_, high) = tables.posts()[options.post], _edge(options, bed), _board(options, bed)
    low, members = _RIM - high, []
    number = 0
    for side in sides:
        for x in map(float, xs):
            number += 1
            line = ((x, side * edge, low), (x, side * edge, options.height))
            members.append(
                Member(
                    f"post-{number}",
                    "post",
                    "posts",
                    post.key,
                    line,
                    posts.stock_length(post, options.height - low),
                    post.soil_width,
                )
            )
            for row in range(options.screw_rows):
                z = _RIM - _FIRST_SCREW - row * options.screw_gap
                members.append(
                    Member(
                        f"screw-{number}-{row + 1}", "fitting", "", "", ((x, side * edge, z),), shape="point"
                    )
                )
        if options.boards == "own":
            board, _, _ = _OWN_BOARD
            y = side * bed.width / 2
            for up, z in enumerate((low + 0.07, low + 0.21)):
                line = ((0.0, y, z), (options.length, y, z))
                members.append(
                    Member(f"board-{number}-{up + 1}", "rail", "posts", board, line, options.length, 0.14)
                )
        if options.backing == "stakes":
            stake = tables.posts()[options.stake]
            count = max(math.floor(options.length / options.backing_step + 1e-6), 1) + 1
            for n, x in enumerate(np.linspace(0.05, options.length - 0.05, count).tolist()):
                line = ((x, side * edge, low - _BACKING_DEPTH), (x, side * edge, low + 0.9 * high))
                members.append(
                    Member(
                        f"backing-{number}-{n + 1}",
                        "strut",
                        "posts",
                        stake.key,
                        line,
                        _BACKING_DEPTH + high,
                        stake.soil_width,
                    )
                )
        elif options.backing == "ties" and side < 0:
            count = max(math.floor(options.length / options.backing_step + 1e-6), 1)
            for n, x in enumerate(np.linspace(0, options.length, count + 2)[1:-1].tolist()):
                line = ((x, -bed.width / 2, -0.05), (x, bed.width / 2, -0.05))
                members.append(
                    Member(
                        f"backing-{number}-{n + 1}",
                        "strut",
                        "posts",
                        "post_sw_stake_38",
                        line,
                        bed.width,
                        0.038,
                    )
                )
    return members


def _across(options: BedFrameOptions, xs: Array, edge: float) -> list[Member]:
    """Return the bars over the bed that join two uprights."""
    if options.sides == "one" or options.crossbar == "none":
        return []
    post, members = tables.posts()[options.post], []
    heights = [options.height] if options.crossbar == "top" else [options.height, options.height / 2]
    for n, x in enumerate(map(float, xs)):
        for m, z in enumerate(heights):
            line = ((x, -edge, z - 0.03), (x, edge, z - 0.03))
            members.append(
                Member(f"crossbar-{n + 1}-{m + 1}", "arm", "posts", post.key, line, 2 * edge, post.soil_width)
            )
    return members


def _filling(options: BedFrameOptions, xs: Array, y: float) -> list[Member]:
    """Return the rail that strings hang from, or the mesh with its ties, along one side."""
    side = "left" if y > 0 else "right"
    if options.infill == "strings":
        rail = tables.posts()[options.rail]
        line = ((0.0, y, options.height), (options.length, y, options.height))
        return [Member(f"rail-{side}", "rail", "posts", rail.key, line, options.length, rail.soil_width)]
    if options.infill == "mesh" and len(xs) > 1:
        row = tables.meshes()[options.mesh]
        high = min(options.height - 0.10, max(row.heights_m))
        members = mesh_face.members(
            row, options.tie, mesh_face.tie_count(high), xs, y, 0.05, 0.05 + high, options.height
        )
        return [_named(member, side) for member in members]
    return []


def _named(member: Member, side: str) -> Member:
    return Member(
        f"{member.key}-{side}",
        member.role,
        member.table,
        member.item,
        member.points,
        member.buy_length,
        member.thickness,
        member.shape,
        member.grid,
        member.lines,
        member.sags,
    )


def _up(plant: Plant, top: tuple[float, float, float]) -> Plant:
    """Return a plant with its way: to its upright, and up it."""
    x, y, z = top
    return Plant(plant.at, plant.planting, (plant.at, (x, y, 0.25), (x, y, z)))
