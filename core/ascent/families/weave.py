"""Weave: runs of twine between posts on both sides of the plants; basket weave, corral, figure of eight,
front and back, or a ladder of canes.
"""

from __future__ import annotations

import math
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, beam, cable, relief
from ..path.geometry import Dimension, Geometry, Member, Point, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts, runs
from ..patterns.end_assembly import EndAssembly, loaded_line
from ..patterns.stand import PostRow
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_SIDE = 0.03  # of a run from the row [m], parts handbook 3.10
_TURN = 0.04  # of twine for a turn round a post, besides its girth [m]


class WeaveOptions(Typed):
    """What must be decided of a weave. Lengths in metres."""

    length: float = measure("row", "length", 6.0, 0.6, 60.0, 0.05, asked=True)
    style: Literal["basket", "corral", "eight", "front-back", "ladder"] = choice("runs", "basket", asked=True)
    half_width: float = measure(
        "runs", "length", 0.30, 0.1, 0.6, 0.01, when=("style", ("corral",)), asked=True
    )
    first_run: float = measure("runs", "length", 0.25, 0.1, 0.6, 0.01, asked=True)
    run_step: float = measure("runs", "length", 0.20, 0.1, 0.5, 0.01, tries=(-0.05, -0.08))
    top_run: float = measure("runs", "length", 1.05, 0.2, 2.2, 0.01, tries=(0.1, 0.2, -0.1), asked=True)
    twine: Annotated[str, row_of("twines", "run")] = item(
        "runs", "twines", "sisal_2.5", "run", when=("style", ("basket", "corral", "eight", "front-back"))
    )
    cane: Annotated[str, row_of("posts", "rail")] = item(
        "runs", "posts", "cane_20", "rail", when=("style", ("ladder",))
    )
    rung_tie: Annotated[str, row_of("ties", "mesh")] = item(
        "runs", "ties", "twine_sisal_loop", "mesh", when=("style", ("ladder",))
    )
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "post_hw_stake_38", "post")
    post_spacing: float = measure("posts", "length", 1.20, 0.3, 3.0, 0.01, tries="bays")
    post_age: int = measure("posts", "count", 0, 0, 15, 1, asked=True)
    depth: float = measure("posts", "length", 0.45, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "driven")
    ends: Literal["plain", "double", "guy", "strut"] = choice("ends", "double")
    guy_wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_14", when=("ends", ("guy",)))
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "stake_guy_rebar", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut",))
    )
    extension: Literal["none", "canes"] = choice("ends", "none", asked=True)


class _Woven(PostRow[WeaveOptions]):
    """Everything the checks of a weave need, worked out once for its cases."""

    @cached_property
    def heights(self) -> Array:
        return np.array(_heights(self.options))

    @cached_property
    def wind(self) -> face.FaceWind:
        return face.wind_on_face(self.growths, 0.0, 0.0, self.options.top_run, self.cases)

    @cached_property
    def leaning(self) -> Array:
        """Return the moment about the ground of a metre of row that leans on its runs. [N·m/m]"""
        total = self.nothing
        for growth in self.growths:
            lines = 2.0 if growth.planting.side == "both" else 1.0
            carried = max(growth.crop.carried_share, 0.05)
            mass = (growth.shoot_kg / carried + growth.fruit_kg) * lines / growth.planting.spacing
            centre = np.minimum(growth.top, self.options.top_run + 0.3) / 2
            total = total + (mass * centre)[None, :, None] * self.cases.crop
        return np.asarray(
            total * tables.constant("gravity") * math.sin(math.radians(tables.constant("lean_angle")))
        )

    @cached_property
    def moment(self) -> Array:
        """Return the moment that the runs of a metre hold. [N·m/m]"""
        return np.asarray(self.borne * (self.leaning + self.wind.force * self.wind.height))

    @cached_property
    def placed(self) -> Array:
        """Return which runs are up in each week, (R, 1, W, 1): one goes on as the plants pass it."""
        top = np.max([s.top for s in self.growths], axis=0)
        up = self.heights[:, None] <= np.maximum(top, self.heights[0])[None, :] + 1e-9
        return np.asarray(up[:, None, :, None].astype(float))

    @cached_property
    def squares(self) -> Array:
        """Return the sum of the squared heights of the runs that are up, (1, W, 1). [m²]"""
        return np.asarray(np.sum(self.placed * self.heights[:, None, None, None] ** 2, axis=0))

    @cached_property
    def loads(self) -> Array:
        """Return the side load on a metre of each run, (R, S, W, G): in proportion to its height. [N/m]"""
        return np.asarray(
            self.placed * self.heights[:, None, None, None] * (self.moment / self.squares)[None]
        )

    @cached_property
    def on_post(self) -> tuple[Array, Array]:
        """Return the push of a bay's runs on a line post and where it acts, [N] and [m]."""
        levers = np.sum(self.placed * self.heights[:, None, None, None], axis=0)
        return np.asarray(self.moment * levers / self.squares * self.bay), np.asarray(self.squares / levers)

    @cached_property
    def ends(self) -> EndAssembly:
        return _ends_of(self.options, self.site).standing(self.geometry)

    def _pulls(self, loads: Array) -> Array:
        twine = tables.twines()[self.options.twine]
        give = self.ends.stiffness(float(np.mean(self.heights)), self.cases) / len(self.heights)
        axial = relief.with_ends(
            twine.break_N / twine.stretch, give, self.bay, relief.tied_bays(len(self.xs) - 1)
        )
        return cable.loaded_tension(loads, self.bay, tables.constant("twine_pretension"), axial)

    @cached_property
    def pulls(self) -> Array:
        """Return the pull of each run, (R, S, W, G). [N]"""
        return self._pulls(self.loads) * self.placed

    def path(self) -> tuple[Link, ...]:
        """Return the links from plant to ground."""
        first = self._rung() if self.options.style == "ladder" else self._run()
        force, height = self.on_post
        members = keys(self.geometry.by_role("post"))
        checks = (bending.post_across(self.post, force, height, np.ones((1, 1, 1))),)
        side = (Arrow((self.bay, 0.0, float(np.mean(self.heights))), (0.0, 1.0, 0.0)),)
        links = [
            first,
            Link(
                "post",
                members,
                ("posts", self.post.key),
                ("soil",),
                ("post", "post_spacing", "top_run"),
                force,
                checks,
                side,
            ),
            self.soil_grip(
                self.post,
                self.options.depth,
                force,
                height,
                ("depth", "post_spacing", "post", "setting"),
                arrows=side,
            ),
        ]
        return (*links, *(() if self.options.style == "ladder" else self._ends()))

    def _run(self) -> Link:
        """Return the most loaded run: the top one that is up."""
        twine = tables.twines()[self.options.twine]
        load, pull = np.max(self.loads, axis=0), np.max(self.pulls, axis=0)
        return Link(
            "run",
            keys(self.geometry.by_role("run")),
            ("twines", twine.key),
            ("post", "end-post"),
            ("twine", "post_spacing", "run_step", "top_run"),
            pull,
            (runs.run(twine, load, self.bay, pull, self.tied_on),),
        )

    def _rung(self) -> Link:
        cane, load = tables.posts()[self.options.cane], np.max(self.loads, axis=0)
        return Link(
            "rung",
            keys(self.geometry.by_role("rail")),
            ("posts", cane.key),
            ("post",),
            ("cane", "post_spacing", "run_step", "top_run"),
            load * self.bay,
            (bending.rail(cane, np.zeros((1, 1, 1)), load, self.bay),),
        )

    def _ends(self) -> tuple[Link, ...]:
        lean = (
            self.borne * self.placed * self.heights[:, None, None, None] * (self.leaning / self.squares)[None]
        )
        still, twice = self._pulls(lean) * self.placed, 2.0 if self.options.ends == "double" else 1.0
        bays = relief.tied_bays(len(self.xs) - 1)
        lines = [
            loaded_line(
                h,
                self.pulls[n] / twice,
                self.loads[n],
                still[n] / twice,
                lean[n],
                self.bay,
                bays,
                1.0 / twice,
            )
            for n, h in enumerate(self.heights.tolist())
        ]
        force, at = self.on_post
        return self.ends.links(lines, force / 2 / twice, at, self.cases)

    def service(self) -> tuple[Service, ...]:
        """Return the lean of the posts and the belly of the runs."""
        force, height = self.on_post
        top = max(self.geometry.top, 0.3)
        lean = force * posts.lean_per_force(
            self.post, self.ground, self.options.depth, height, height / 2, top, self.cases
        )
        if self.options.style == "ladder":
            cane = tables.posts()[self.options.cane]
            belly = np.asarray(beam.span_sag(np.max(self.loads, axis=0), self.bay, bending.stiffness(cane)))
        else:
            belly = (
                np.max(self.loads, axis=0) * self.bay**2 / (8 * np.maximum(np.max(self.pulls, axis=0), 1.0))
            )
        return (
            self.lean_of(lean, top),
            Service("run-belly", belly, self.bay / 10, "handbook-11", ("post_spacing", "twine", "run_step")),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the moment of wind and lean about the ground, and what the posts take of it. [N·m]"""
        force, height = self.on_post
        inner = max(len(self.xs) - 2, 0)
        return self.moment * self.options.length, force * height * (inner + 2 * 0.5)


class Weave(Family[WeaveOptions]):
    """Runs of twine."""

    key: ClassVar[str] = "weave"
    options = WeaveOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return a weave for a crop on a bed, every value with its reason."""
        row = plants.sown(need, site, longest=60.0)
        crop, fill = row.crop, site.bed.raised_by
        style = {"CORRAL": "corral", "FRONT": "front-back"}.get(crop.training, "basket")
        apart = row.plantings[0].spacing
        bay = min(max(round(2 * apart if apart >= 0.3 else 1.2, 2), 0.6), 2.0)
        top = round(min(max(0.9 * min(crop.support_height_m, 1.8), 0.25), 1.65) * 20) / 20
        first = min(0.25, top)
        depth = min(max(0.45, math.ceil((fill + 0.35) * 20) / 20), 1.2)
        options = WeaveOptions(
            length=row.length, style=style, post_spacing=bay, top_run=top, first_run=first, depth=depth
        )
        reasons = {
            **row.reasons,
            "style": Reason(f"style_{style.replace('-', '_')}", words={"crop": crop.name}),
            "first_run": Reason("first_run", {"height": (first, "length")}),
            "run_step": Reason("run_step", {"step": (options.run_step, "length")}),
            "top_run": Reason("top_run", {"height": (top, "length")}),
            "post_age": Reason("post_age"),
            "post": Reason("weave_post"),
            "post_spacing": Reason(
                "post_spacing_weave" if apart >= 0.3 else "post_spacing_row", {"spacing": (bay, "length")}
            ),
            "depth": Reason(
                "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
            ),
            "setting": Reason("setting"),
            "ends": Reason("ends_double"),
            "extension": Reason("extension"),
            "twine": Reason("twine"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: WeaveOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return posts, runs or canes, and plants in metres."""
        post, xs = tables.posts()[options.post], posts.stations(options.length, options.post_spacing)
        above = options.top_run + 0.1
        bought = posts.stock_length(post, options.depth + above)
        top = max(min(bought - options.depth, above + 0.3), 0.2)
        members = posts.row(post, xs, options.depth, top, bought)
        if options.ends == "double":
            for n, x in enumerate((0.06, float(xs[-1]) - 0.06)):
                members += posts.standing(
                    post, len(xs) + n + 1, (x, 0.0, -options.depth), (x, 0.0, top), bought
                )
        members += _runs(options, xs, post)
        if options.extension == "canes":
            members += [
                Member(
                    f"extension-{n + 1}",
                    "strut",
                    "posts",
                    "cane_12",
                    ((float(x), 0.0, top - 0.3), (float(x), 0.0, top + 0.6)),
                    0.9,
                    0.012,
                )
                for n, x in enumerate(xs)
            ]
        members += _ends_of(options, site).members(options.length)
        two = any(p.side == "both" for p in plantings)
        grown = plants.along(plantings, options.length, 0.12 if two else 0.0)
        end, bay = float(xs[-1]), float(xs[1])
        dimensions = (
            Dimension(
                "options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.5
            ),
            Dimension("options.post_spacing", "elevation", (0, 0, top), (bay, 0, top), bay, 0.5),
            Dimension(
                "options.top_run", "elevation", (end, 0, 0), (end, 0, options.top_run), options.top_run, 0.9
            ),
            Dimension(
                "options.first_run",
                "elevation",
                (end, 0, 0),
                (end, 0, options.first_run),
                options.first_run,
                1.8,
            ),
            Dimension("options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.8),
            *plants.spacing_dimension(plantings, grown, site.bed.width / 2),
        )
        supplies = tuple(posts.concrete([options.depth] * len(xs))) if options.setting == "concrete" else ()
        return Geometry(
            located(members),
            grown,
            dimensions,
            supplies,
            options.length,
            top,
            options.depth,
            climb=options.top_run,
        )

    def loaded(
        self, options: WeaveOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Woven:
        """Return the weave under the loads of the cases."""
        return _Woven(options, geometry, structure, site, cases)

    def remarks(
        self, options: WeaveOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: posts long enough, runs in time, how many plants stand between
        two posts.
        """
        remarks = [
            *fits.of_ground(site.bed, options.length, options.depth),
            *fits.of_setting(options.setting),
        ]
        if geometry.top < options.top_run:
            values = {"top": (options.top_run, "length"), "post": (geometry.top, "length")}
            remarks.append(
                Remark(
                    "run-above-post",
                    "wrong",
                    values,
                    source="handbook-parts-3.10",
                    levers=("top_run", "depth", "post"),
                )
            )
        if options.ends == "guy":
            remarks += fits.of_guys(site.bed, options.length, _ends_of(options, site).reach())
        if options.ends == "plain":
            remarks.append(Remark("ends-lean-in", "watch", source="handbook-parts-3.10", levers=("ends",)))
        if options.first_run > 0.30:
            remarks.append(
                Remark(
                    "first-run-late",
                    "watch",
                    {"height": (options.first_run, "length")},
                    source="handbook-parts-3.10",
                    levers=("first_run",),
                )
            )
        gap = posts.stations(options.length, options.post_spacing)[1]
        for planting in structure.plantings:
            crop = tables.crops()[planting.crop]
            between = math.floor(float(gap) / planting.spacing + 0.01)
            if crop.training == "WEAVE" and between > 2:
                remarks.append(
                    Remark(
                        "many-between",
                        "watch",
                        {"count": (between, "count")},
                        source="crops-4",
                        levers=("post_spacing",),
                    )
                )
            remarks += [*fits.of_suit(planting, self.key), *fits.of_row(planting, options.length)]
            if crop.height_m > options.top_run + 0.35:
                values = {
                    "vine": (crop.height_m, "length"),
                    "top": (options.top_run, "length"),
                    "over": (crop.height_m - options.top_run, "length"),
                }
                remarks.append(
                    Remark(
                        "tops-flop",
                        "watch",
                        values,
                        {"crop": crop.name},
                        "handbook-parts-3.10",
                        ("top_run", "extension"),
                    )
                )
        remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of weaving."""
        cautions = ["services", "driving"]
        if geometry.by_role("guy"):
            cautions.append("guys")
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "climb", "judgement")


_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "post", "post_spacing", "twine"),
    "soil": ("depth", "ends", "post", "post_spacing"),
    "prop": ("anchor", "ends", "post_spacing"),
    "lift": ("depth", "ends", "post"),
}


def _heights(options: WeaveOptions) -> list[float]:
    """Return the heights of the runs, from the first up. [m]"""
    top = max(options.top_run, options.first_run)
    count = max(math.ceil((top - options.first_run) / options.run_step - 1e-6), 0)
    return np.linspace(options.first_run, top, count + 1).tolist() if count else [top]


def _ends_of(options: WeaveOptions, site: Site) -> EndAssembly:
    above = options.top_run + 0.1
    return EndAssembly(
        "plain" if options.ends == "double" else options.ends,
        bending.after(tables.posts()[options.post], options.post_age),
        embedment.ground_of(site.bed, options.setting),
        options.depth,
        tables.constant("brace_height") * above,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
    )


def _runs(options: WeaveOptions, xs: Array, post: rows.Post) -> list[Member]:
    """Return the runs on both sides of the row, or the canes of a ladder with their ties."""
    members, end = [], float(xs[-1])
    girth = 4 * post.soil_width + _TURN
    side = options.half_width if options.style == "corral" else _SIDE
    for n, z in enumerate(_heights(options)):
        if options.style == "ladder":
            cane = tables.posts()[options.cane]
            members.append(
                Member(
                    f"rung-{n + 1}",
                    "rail",
                    "posts",
                    cane.key,
                    ((0.0, _SIDE, z), (end, _SIDE, z)),
                    end,
                    cane.soil_width,
                )
            )
            members += [
                Member(
                    f"tie-{n + 1}-{i + 1}",
                    "tie",
                    "ties",
                    options.rung_tie,
                    ((float(x), _SIDE, z),),
                    shape="point",
                )
                for i, x in enumerate(xs)
            ]
            continue
        there: list[Point] = [(float(x), side * _crossing(options, i), z) for i, x in enumerate(xs)]
        back: list[Point] = [(x, -y, z) for x, y, _ in reversed(there)]
        bought = 2 * 1.02 * end + 2 * len(xs) * girth + 0.6
        row = tables.twines()[options.twine]
        members.append(
            Member(
                f"run-{n + 1}", "run", "twines", row.key, (*there, *back, there[0]), bought, max(row.d, 0.002)
            )
        )
    return members


def _crossing(options: WeaveOptions, post: int) -> float:
    """Return on which side of a post a run passes: woven ones change sides."""
    return (-1.0) ** post if options.style in ("basket", "eight") else 1.0
