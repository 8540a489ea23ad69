"""Mesh fence: panel, welded wire, concrete mesh or netting between driven posts in a straight row."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, embedment, tension, ties
from ..checks import mesh as mesh_checks
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import face
from ..loads.cases import Cases
from ..mechanics import Array, relief, wind
from ..path.geometry import Dimension, Geometry, Member, Plant, keys, located
from ..path.loadpath import Check, Link, Remark, Service
from ..patterns import backs, course, mesh_face, plants, posts, pots, runs
from ..patterns.end_assembly import EndAssembly, Line, loaded_line
from ..patterns.stand import PostRow
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows


class MeshFenceOptions(Typed):
    """What must be decided of a mesh fence. Lengths in metres."""

    length: float = measure("mesh", "length", 3.6, 0.3, 30.0, 0.05, asked=True)
    plan: course.Plan = choice("mesh", "straight", asked=True)
    swing: float = measure("mesh", "length", 0.3, 0.1, 0.6, 0.01, when=("plan", course.FOLDED), asked=True)
    arms: float = measure("mesh", "length", 0.9, 0.5, 2.0, 0.05, when=("plan", ("u",)), asked=True)
    mesh: Annotated[str, row_of("meshes")] = item("mesh", "meshes", "panel_large", asked=True)
    mesh_height: float = measure("mesh", "length", 1.27, 0.3, 3.05, 0.01, tries=(-0.15, -0.3), asked=True)
    bottom_gap: float = measure("mesh", "length", 0.15, 0.0, 0.5, 0.01, asked=True)
    post: Annotated[str, row_of("posts", "post")] = item("posts", "posts", "tpost_2.1", "post")
    post_spacing: float = measure("posts", "length", 1.22, 0.3, 4.0, 0.01, tries="bays")
    stood: Literal["posted", "middle"] = choice("posts", "posted", asked=True)
    post_age: int = measure("posts", "count", 0, 0, 15, 1, asked=True)
    depth: float = measure("posts", "length", 0.60, 0.15, 1.2, 0.01, tries=DEEPER)
    setting: posts.Setting = choice("posts", "driven")
    leaned_on: bool = choice("posts", False, asked=True)
    tie: Annotated[str, row_of("ties", "mesh")] = item("ties", "ties", "tie_wire_16_double", "mesh")
    ties_per_post: int = measure("ties", "count", 4, 2, 12, 1, tries=(1, 2, 4))
    stem_tie: Annotated[str, row_of("ties", "stem")] = item("ties", "ties", "twine_jute_3_loop", "stem")
    woven: Literal["none", "front"] = choice("ties", "none", asked=True)
    run_step: float = measure("ties", "length", 0.30, 0.15, 0.6, 0.01, when=("woven", ("front",)), asked=True)
    twine: Annotated[str, row_of("twines", "run")] = item(
        "ties", "twines", "sisal_2.5", "run", when=("woven", ("front",))
    )
    tie_back: backs.How = choice("back", "none", asked=True)
    back_to: backs.To = choice("back", "fence", when=("tie_back", ("cord", "batten")), asked=True)
    back_height: float = measure(
        "back", "length", 0.9, 0.3, 2.4, 0.01, tries=(0.2, 0.4), when=("tie_back", ("cord", "batten"))
    )
    back_reach: float = measure(
        "back", "length", 0.4, 0.05, 3.0, 0.05, when=("tie_back", ("cord", "batten")), asked=True
    )
    back_cord: Annotated[str, row_of("twines", "run")] = item(
        "back", "twines", "polyester_3", "run", when=("tie_back", ("cord",))
    )
    top: Literal["none", "wire", "rail"] = choice("ends", "none")
    wire: Annotated[str, row_of("wires")] = item("ends", "wires", "wire_soft_125", when=("top", ("wire",)))
    rail: Annotated[str, row_of("posts", "rail")] = item(
        "ends", "posts", "tube_emt_20", "rail", when=("top", ("rail",))
    )
    ends: Literal["plain", "guy", "strut"] = choice("ends", "plain")
    guy_wire: Annotated[str, row_of("wires")] = item(
        "ends", "wires", "wire_soft_125", when=("ends", ("guy",))
    )
    anchor: Annotated[str, row_of("anchors")] = item(
        "ends", "anchors", "anchor_screw_30x4", when=("ends", ("guy",))
    )
    strut: Annotated[str, row_of("posts", "strut")] = item(
        "ends", "posts", "post_sw_stake_38", "strut", when=("ends", ("strut",))
    )


class _Fence(PostRow[MeshFenceOptions]):
    """Everything a mesh fence's checks need, worked out once for its cases."""

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.mesh]

    @cached_property
    def course(self) -> course.Course:
        return _course(self.options)

    @property
    def lone(self) -> bool:
        """Return whether one post in the middle carries it all."""
        return self.options.stood == "middle"

    @cached_property
    def xs(self) -> Array:
        """Return the stations of the posts as the fence is laid out straight, (n,). [m]"""
        return _stations(self.options)

    @cached_property
    def bay(self) -> float:
        """Return the length of mesh between two posts, the longest there is. [m]"""
        return self.course.run if self.lone else float(np.max(np.diff(self.xs)))

    @cached_property
    def carried(self) -> float:
        return self.bay if len(self.xs) != 2 else self.bay / 2

    @cached_property
    def tributaries(self) -> Array:
        """Return the length of mesh that each post takes, (n,). [m]"""
        bays = np.diff(self.xs)
        return np.array([self.bay]) if self.lone else (np.append(bays, 0.0) + np.append(0.0, bays)) / 2

    def places(self, planting: int) -> Array:
        """Return the stations of a planting's plants as the fence is laid out straight, (N,). [m]"""
        laid = plants.along(self.structure.plantings, self.course.run)
        return np.array([plant.at[0] for plant in laid if plant.planting == planting])

    @cached_property
    def mesh_top(self) -> float:
        return self.options.bottom_gap + self.options.mesh_height

    @cached_property
    def wind(self) -> face.FaceWind:
        solidity = wind.mesh_solidity(self.mesh.wire, self.mesh.along, self.mesh.up)
        return face.wind_on_face(self.growths, solidity, self.options.bottom_gap, self.mesh_top, self.cases)

    @cached_property
    def bay_weight(self) -> Array:
        """Return what hangs on one post: crop and mesh. [N]"""
        mesh = self.mesh.kg_m2 * self.options.mesh_height * self.carried * tables.constant("gravity")
        return np.asarray(mesh + self.crop_weight(self.xs, self.bay / 2, self.carried))

    @cached_property
    def stiff(self) -> bool:
        """Return whether the mesh carries its own load to the posts, as a panel does and a roll does not."""
        return self.mesh.wire >= mesh_face.STIFF_WIRE

    @cached_property
    def hangs_from_top(self) -> bool:
        """Return whether the top line carries the weight: a rail does, a wire only where the mesh is limp."""
        return self.options.top == "rail" or (self.options.top == "wire" and not self.stiff)

    @cached_property
    def rests_on_ground(self) -> bool:
        return self.options.bottom_gap < 0.01 and self.stiff

    @cached_property
    def ends(self) -> EndAssembly:
        return _ends_of(self.options, self.site, len(self.xs), self.geometry.top).standing(self.geometry)

    @cached_property
    def middle(self) -> float:
        return self.options.bottom_gap + self.options.mesh_height / 2

    @cached_property
    def mesh_state(self) -> mesh_checks.MeshState:
        stiffness, yields = (
            self.ends.stiffness(self.middle, self.cases),
            self.ends.yields(self.middle, self.cases),
        )
        return mesh_checks.in_wind(
            self.mesh,
            self.wind.pressure,
            self.bay,
            self.options.mesh_height,
            stiffness,
            self.shortened,
            yields,
        )

    @cached_property
    def shortened(self) -> float:
        """Return over how many bays' shortening an end post comes in: mesh and runs are tied to every
        post.
        """
        return relief.tied_bays(self.course.back)

    def path(self) -> tuple[Link, ...]:
        """Return the links from fruit to ground."""
        stems = self.stem_ties(self.options.stem_tie, self.wind.pressure, self.wind.leaf_height, "mesh")
        if self.woven:
            stems = [self._run()]
        links = [*stems, self._mesh(), self._ties(), *self._top(), self._posts(), self._soil(), *self._ends()]
        pulled = self.backed.pull if self.options.tie_back != "none" else self.nothing
        links += backs.links(self.options, self.site.bed, pulled, self.tied_on)
        links += pots.link(
            self.site.bed,
            self.alone * self.wind.force * self.options.length,
            np.asarray(self.wind.height),
            ("tie_back",),
        )
        if self.options.leaned_on:
            links.append(self._person())
        return tuple(links)

    @property
    def woven(self) -> bool:
        """Return whether runs of twine before the mesh keep the plants to it, in place of ties."""
        return self.options.woven == "front"

    @cached_property
    def run_heights(self) -> list[float]:
        return _run_heights(self.options)

    @cached_property
    def leaning(self) -> Array:
        """Return the side load on a metre of one run from plants that lean on it. [N/m]"""
        total = self.nothing
        for growth in self.growths:
            lines = 2.0 if growth.planting.side == "both" else 1.0
            total = (
                total + (growth.plant_kg * lines / growth.planting.spacing)[None, :, None] * self.cases.crop
            )
        share = math.sin(math.radians(tables.constant("lean_angle"))) / len(self.run_heights)
        return np.asarray(tables.constant("gravity") * total * share)

    @cached_property
    def run_load(self) -> Array:
        """Return the side load on a metre of one run: the plants' lean, and the half of the wind that blows
        them off the mesh. [N/m]
        """
        return np.asarray(
            self.leaning + tables.constant("string_share") * self.wind.pressure * self.options.run_step
        )

    def _run_pull(self, load: Array) -> Array:
        give = self.ends.stiffness(self.middle, self.cases) / len(self.run_heights)
        return runs.tension(tables.twines()[self.options.twine], load, self.bay, self.course.back, give)

    @property
    def _held_by(self) -> tuple[str, ...]:
        """Return what posts there are."""
        return ("post",) if self.lone else ("post", "end-post")

    def _run(self) -> Link:
        twine, pull = tables.twines()[self.options.twine], self._run_pull(self.run_load)
        return Link(
            "run",
            keys(self.geometry.by_role("run")),
            ("twines", twine.key),
            self._held_by,
            ("twine", "post_spacing"),
            pull,
            (runs.run(twine, self.run_load, self.bay, pull, self.tied_on),),
        )

    def _mesh(self) -> Link:
        state = self.mesh_state
        wires = mesh_checks.wires_across(self.mesh, self.options.mesh_height)
        per_wire = (
            self.bay_weight / wires
            if self.options.top == "none" and self.mesh.kind == "net"
            else np.zeros((1, 1, 1))
        )
        checks = [mesh_checks.wire_tension(self.mesh, state, per_wire, self.bay)]
        if self.mesh.material.startswith("welded"):
            checks.append(mesh_checks.weld(self.mesh, self.tie_check.demand))
        return Link(
            "mesh",
            keys(self.geometry.by_role("mesh")),
            ("meshes", self.mesh.key),
            ("mesh-tie", *self._held_by[1:]),
            ("mesh", "post_spacing"),
            np.hypot(self.wind.force * self.bay, self.bay_weight),
            tuple(checks),
        )

    @cached_property
    def onto_posts(self) -> Array:
        """Return the wind on the mesh that a post's ties take. [N]"""
        return np.asarray(self.wind.pressure * self.options.mesh_height * self.carried / self.course.ratio)

    @cached_property
    def tie_check(self) -> Check:
        """Return the check of the top tie of a post."""
        borne = self.rests_on_ground or self.hangs_from_top
        weight = np.zeros((1, 1, 1)) if borne else self.bay_weight
        stiff = self.mesh.material.startswith("welded")
        return ties.mesh_tie(
            tables.ties()[self.options.tie],
            self.onto_posts,
            weight,
            self.options.ties_per_post,
            self.tied_on,
            stiff,
        )

    def _ties(self) -> Link:
        next_link = ("post",) if self.options.top == "none" else ("top-line", "post")
        return Link(
            "mesh-tie",
            keys(self.geometry.by_role("tie")),
            ("ties", self.options.tie),
            next_link,
            ("tie", "ties_per_post", "top", "post_spacing", "bottom_gap"),
            self.onto_posts,
            (self.tie_check,),
        )

    def _top(self) -> list[Link]:
        if self.options.top == "none":
            return []
        if self.options.top == "wire":
            wire = tables.wires()[self.options.wire]
            checked, lever, row = (
                tension.top_wire(wire, self.wire_load, self.bay, self.wire_pull),
                "wire",
                ("wires", wire.key),
            )
            load = self.wire_load
        else:
            rail = tables.posts()[self.options.rail]
            checked = bending.rail(
                rail, self.hung, self.wind.pressure * self.options.mesh_height / 2, self.bay
            )
            lever, row = "rail", ("posts", rail.key)
            load = np.hypot(self.hung, self.wind.pressure * self.options.mesh_height / 2)
        role: Literal["wire", "rail"] = "wire" if self.options.top == "wire" else "rail"
        return [
            Link(
                "top-line",
                keys(self.geometry.by_role(role)),
                row,
                ("post",),
                (lever, "post_spacing"),
                load * self.bay,
                (checked,),
            )
        ]

    @cached_property
    def hung(self) -> Array:
        """Return what hangs on a metre of top line. [N/m]"""
        return np.asarray(self.bay_weight / self.carried if self.hangs_from_top else np.zeros((1, 1, 1)))

    @cached_property
    def wire_load(self) -> Array:
        """Return weight and wind on a metre of top wire. [N/m]"""
        return np.asarray(np.hypot(self.hung, self.wind.pressure * self.mesh.up / 2))

    @cached_property
    def wire_pull(self) -> Array:
        """Return the pull of the top wire on its ends. [N]"""
        return self._pull_under(self.wire_load)

    def _pull_under(self, load: Array) -> Array:
        stiffness = self.ends.stiffness(self.mesh_top, self.cases)
        return tension.wire_pull(
            tables.wires()[self.options.wire], load, self.bay, stiffness, self.course.back / 2
        )

    @cached_property
    def across(self) -> Array:
        """Return the wind across the row on one post. [N]"""
        return np.asarray(self.wind.force * self.carried / self.course.ratio)

    @cached_property
    def backed(self) -> backs.Held:
        """Return what becomes of the wind on an inner post that is tied back."""
        return backs.held(self.options, self.across, np.asarray(self.wind.height))

    @property
    def alone(self) -> float:
        """Return the share of the wind that a post takes alone: all of it, or what blows toward what it is
        tied to.
        """
        return 1.0 if self.options.tie_back == "none" else self.backed.free

    @cached_property
    def amplified(self) -> Array:
        """Return by how much the weight on a post raises its moment from the wind."""
        return self.amplified_by(self.bay_weight, max(self.mesh_top, 0.3))

    def _posts(self) -> Link:
        force, amplified = self.across, self.amplified
        along = self.wind.end + self.wind.skin * self.options.length
        bends = bending.post_across(self.post, self.alone * force, self.wind.height, amplified)
        if self.options.tie_back != "none":
            bends = bending.post_held(np.maximum(bends.demand, self.backed.bent * amplified), bends)
        checks = (bends, bending.post_along(self.post, along, self.wind.height, len(self.xs)))
        return Link(
            "post",
            keys(self.geometry.by_role("post")),
            ("posts", self.post.key),
            ("soil",),
            ("post", "post_spacing", "mesh_height"),
            force,
            checks,
        )

    def _soil(self) -> Link:
        levers = ("depth", "post_spacing", "post", "mesh_height", "setting", "tie_back")
        grip = self.soil_grip(
            self.post, self.options.depth, self.alone * self.across, self.wind.height * self.amplified, levers
        )
        if self.options.tie_back == "none":
            return grip
        low = np.full((1, 1, 1), 0.02)
        foot = embedment.grip(
            "held-foot", self.ground, self.post, self.options.depth, self.backed.foot, low, self.cases
        )
        return replace(grip, checks=(*grip.checks, foot))

    def _ends(self) -> tuple[Link, ...]:
        if self.lone:
            return ()
        lines, across = self._lines(), self.alone * self.wind.force * self.bay / 2 / self.course.ratio
        if (
            self.options.plan == "u"
        ):  # a corner takes the pull of its arm, which helps it in the wind if its mesh is stiff
            helped = 1.0 + (len(self.xs) - 1 - self.course.back) / 2 if self.stiff else 1.0
            across = across / helped + sum(line.after(self.ends.give(line.height)) for line in lines)
        return self.ends.links(lines, across, self.wind.height, self.cases)

    def _lines(self) -> list[Line]:
        """Return what pulls the end posts in: the mesh, runs before it, a top wire."""
        state, none = self.mesh_state, self.nothing

        def left(give: Array | float) -> Array:
            belly = relief.belly_after(give, self.bay, self.shortened)
            return state.wires * relief.pull_at(state.load, self.bay, belly, state.bent(belly))

        lines = [Line(self.middle, state.pull, left, none, lambda _give: none)]
        if self.woven:
            count, load, still = len(self.run_heights), self.run_load, self.leaning
            lines.append(
                loaded_line(
                    self.middle,
                    count * self._run_pull(load),
                    load,
                    count * self._run_pull(still),
                    still,
                    self.bay,
                    self.shortened,
                    count,
                )
            )
        if self.options.top == "wire":
            slides = self.course.back / 2
            still = self._pull_under(self.hung)
            lines.append(
                loaded_line(self.mesh_top, self.wire_pull, self.wire_load, still, self.hung, self.bay, slides)
            )
        return lines

    def _person(self) -> Link:
        pull = tables.constant("person_pull")
        grip_height = np.full((1, 1, 1), min(tables.constant("hand_height"), self.geometry.top))
        force = np.full((1, 1, 1), pull)
        checks = (
            bending.person_pull(self.post, self.geometry.top),
            embedment.grip(
                "person-pull-grip", self.ground, self.post, self.options.depth, force, grip_height, self.cases
            ),
        )
        posts_ = keys(self.geometry.by_role("post"))
        return Link(
            "person",
            posts_,
            ("posts", self.post.key),
            ("soil",),
            ("post", "depth", "leaned_on"),
            force,
            checks,
        )

    def service(self) -> tuple[Service, ...]:
        """Return the lean of a post's top and the belly of the mesh."""
        lean = self.across * posts.lean_per_force(
            self.post,
            self.ground,
            self.options.depth,
            self.wind.height,
            self.wind.leaf_height / 2,
            self.geometry.top,
            self.cases,
        )
        services = [
            self.lean_of(lean, self.geometry.top),
            Service(
                "belly",
                self.mesh_state.belly,
                self.bay / tables.constant("belly_limit"),
                "handbook-12",
                ("post_spacing", "mesh", "ends"),
            ),
        ]
        if self.options.top != "none":
            wired = self.options.top == "wire"
            sag = (
                tension.wire_sag(self.wire_pull, self.wire_load, self.bay)
                if wired
                else bending.rail_sag(tables.posts()[self.options.rail], self.hung, self.bay)
            )
            services.append(
                Service(
                    "top-sag",
                    sag,
                    self.bay / tables.constant("rail_sag_limit"),
                    "handbook-4.2",
                    ("post_spacing",),
                )
            )
        return tuple(services)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across the fence, and what its posts take of it. [N]"""
        shares = float(np.sum(self.tributaries)) / self.carried
        return self.wind.force * self.course.run / self.course.ratio, self.across * shares


class MeshFence(Family[MeshFenceOptions]):
    """Mesh between posts."""

    key: ClassVar[str] = "mesh-fence"
    options = MeshFenceOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return a fence for a crop on one side of a bed, every value with its reason."""
        row = plants.sown(need, site, longest=30.0)
        plant, length = row.crop, row.length
        product = mesh_face.mesh_for(plant)
        gap = 0.15 if product.kind in ("panel", "sheet") else 0.05
        wanted = min(plant.support_height_m, tables.constant("reach")) - gap
        height = max((h for h in product.heights_m if h <= wanted + 0.1), default=min(product.heights_m))
        fill = site.bed.raised_by
        longest = max(posts.driven_for(math.inf).lengths_m)
        depth = min(
            max(0.60, math.ceil((fill + 0.45) * 20) / 20), math.floor((longest - gap - height) * 20) / 20, 1.2
        )
        post = posts.driven_for(depth + gap + height)
        bay = 1.22 if product.kind in ("panel", "sheet") else 1.0
        options = MeshFenceOptions(
            length=length,
            mesh=product.key,
            mesh_height=height,
            bottom_gap=gap,
            post=post.key,
            post_spacing=bay,
            depth=depth,
            tie="clip_tpost",
            ties_per_post=mesh_face.tie_count(height),
            top="wire" if product.kind == "net" else "none",
            ends="plain" if product.kind in ("panel", "sheet") or length <= 4.0 else "guy",
        )
        reasons = {
            **row.reasons,
            "mesh": Reason("mesh", words={"crop": plant.name, "mesh": product.name}),
            "mesh_height": Reason(
                "mesh_height", {"support": (plant.support_height_m, "length"), "height": (height, "length")}
            ),
            "bottom_gap": Reason("bottom_gap"),
            "post_age": Reason("post_age"),
            "post": Reason("post", {"needed": (depth + gap + height, "length")}, {"post": post.name}),
            "post_spacing": Reason(
                "post_spacing_panel" if bay > 1.1 else "post_spacing_roll", {"spacing": (bay, "length")}
            ),
            "depth": Reason(
                "depth_raised" if fill else "depth", {"depth": (depth, "length"), "fill": (fill, "length")}
            ),
            "setting": Reason("setting"),
            "tie": Reason("tie"),
            "ties_per_post": Reason(
                "ties_per_post",
                {"count": (mesh_face.tie_count(height), "count"), "height": (height, "length")},
            ),
            "plan": Reason("plan"),
            "stood": Reason("stood"),
            "stem_tie": Reason("stem_tie"),
            "woven": Reason("woven"),
            "top": Reason("top_net" if options.top == "wire" else "top"),
            "ends": Reason("ends_roll" if options.ends == "guy" else "ends"),
            "leaned_on": Reason("leaned_on"),
            "tie_back": Reason("tie_back"),
        }
        return Proposal(options, row.plantings, reasons)

    def geometry(self, options: MeshFenceOptions, plantings: tuple[Planting, ...], site: Site) -> Geometry:
        """Return posts, mesh bays, ties, top line and ends in metres."""
        post, product = tables.posts()[options.post], tables.meshes()[options.mesh]
        line, xs = _course(options), _stations(options)
        low, high = options.bottom_gap, options.bottom_gap + options.mesh_height
        bought = posts.stock_length(post, options.depth + high)
        top = max(bought - options.depth, 0.2)
        side = -1.0 if plantings[0].side == "right" else 1.0
        y = side * post.soil_width / 2
        members = posts.row(post, xs, options.depth, top, bought)
        members += mesh_face.members(
            product,
            options.tie,
            options.ties_per_post,
            xs,
            y,
            low,
            high,
            top,
            np.array([0.0, line.run]) if options.stood == "middle" else None,
        )
        if options.top != "none":
            z = min(high, top)
            members += mesh_face.lacing(options.tie, line.run, xs, y, z)
            members.append(mesh_face.top_line(options.top, options.wire, options.rail, line.run, y, z))
        members += backs.members(options, [(float(x), 0.0, 0.0) for x in xs], -side)
        if options.stood == "posted":
            members += _ends_of(options, site, len(xs), top).members(line.run)
        grown = line.plants(plants.along(plantings, line.run))
        supplies = plants.stem_ties(plantings, options.stem_tie, high, tables.constant("stripped_pruned"))
        if options.woven == "front":
            members += _runs(options, xs, side)
            supplies = ()
        if options.setting == "concrete":
            supplies = (*supplies, *posts.concrete([options.depth] * len(xs)))
        dimensions = _dimensions(options, plantings, grown, site.bed.width / 2)
        return Geometry(
            located(line.members(members)),
            grown,
            dimensions,
            supplies,
            options.length,
            top,
            options.depth,
            climb=high,
        )

    def loaded(
        self, options: MeshFenceOptions, geometry: Geometry, structure: Structure, site: Site, cases: Cases
    ) -> _Fence:
        """Return the fence under the loads of the cases."""
        return _Fence(options, geometry, structure, site, cases)

    def remarks(
        self, options: MeshFenceOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: hand, fruit, reach, vine, post, ground."""
        remarks = [
            *fits.of_ground(site.bed, options.length, options.depth),
            *fits.of_setting(options.setting),
        ]
        if options.ends == "guy" and options.plan == "straight" and options.stood == "posted":
            reach = max(m.points[0][0] for m in geometry.by_role("anchor")) - options.length
            remarks += fits.of_guys(site.bed, options.length, reach)
        for planting in structure.plantings:
            remarks += fits.of_planting(
                planting,
                tables.meshes()[options.mesh],
                options.bottom_gap + options.mesh_height,
                _course(options).run,
            )
        remarks += _of_plan(options, site)
        remarks += fits.of_fence(
            options.mesh,
            options.mesh_height,
            options.bottom_gap,
            options.top,
            options.ends,
            options.tie,
            tables.posts()[options.post],
            geometry.top,
            options.leaned_on,
        )
        remarks += fits.of_age(tables.posts()[options.post], options.post_age, ("post_age", "post"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of building a fence of these members."""
        cautions = ["services", "driving", "cut-ends"]
        if any(tables.posts()[post.item].shape == "tee" for post in geometry.by_role("post")):
            cautions.append("studs")
        if geometry.by_role("guy"):
            cautions.append("guys")
        if geometry.by_role("cap"):
            cautions.append("caps")
        return (*cautions, "climb", "judgement")


_END_LEVERS = {
    "guy": ("guy_wire", "ends"),
    "strut": ("strut", "ends"),
    "post": ("ends", "top", "post_spacing", "post", "mesh", "mesh_height"),
    "soil": ("ends", "depth", "top", "post_spacing", "mesh", "mesh_height", "tie_back"),
    "prop": ("anchor", "ends", "post_spacing"),
    "lift": ("depth", "ends", "post_spacing"),
}


def _ends_of(options: MeshFenceOptions, site: Site, posts_: int, top: float) -> EndAssembly:
    railed, bays = options.top == "rail" and posts_ > 1, max(posts_ - 1, 1)
    return EndAssembly(
        options.ends,
        bending.after(tables.posts()[options.post], options.post_age),
        embedment.ground_of(site.bed, options.setting),
        options.depth,
        top if railed else tables.constant("brace_height") * top,
        tables.wires()[options.guy_wire],
        tables.anchors()[options.anchor],
        tables.posts()[options.strut],
        _END_LEVERS,
        railed,
        bows=relief.tied_bays(bays) * tables.constant("rail_bows") * options.length / bays,
    )


def _course(options: MeshFenceOptions) -> course.Course:
    return course.Course(options.plan, options.length, options.post_spacing, options.swing, options.arms)


def _stations(options: MeshFenceOptions) -> Array:
    """Return where its posts stand as it is laid out straight, (n,). [m]"""
    line = _course(options)
    return np.array([line.run / 2]) if options.stood == "middle" else line.stations


def _of_plan(options: MeshFenceOptions, site: Site) -> list[Remark]:
    """Return what its line in plan asks for: a way in, a mesh that bends, room in the bed.

    Source: handbook-parts-3.2
    """
    remarks, product = [], tables.meshes()[options.mesh]
    if options.plan == "u" and options.length < tables.constant("path_wide"):
        values = {"inside": (options.length, "length"), "path": (tables.constant("path_wide"), "length")}
        remarks.append(Remark("u-narrow", "wrong", values, source="handbook-parts-3.2", levers=("length",)))
    if options.plan == "serpentine" and product.kind in ("panel", "sheet"):
        remarks.append(
            Remark(
                "panel-waves",
                "wrong",
                words={"mesh": product.name},
                source="handbook-parts-3.2",
                levers=("plan", "mesh"),
            )
        )
    deep = {"u": options.arms, "zigzag": 2 * options.swing, "serpentine": 2 * options.swing}.get(
        options.plan, 0.0
    )
    if deep > site.bed.width + 1e-6:
        values = {"deep": (deep, "length"), "bed": (site.bed.width, "length")}
        remarks.append(
            Remark(
                "fence-past-bed",
                "watch",
                values,
                source="handbook-parts-3.2",
                levers=("arms" if options.plan == "u" else "swing",),
            )
        )
    if options.stood == "middle" and options.length > tables.constant("lone_wide"):
        values = {"wide": (options.length, "length"), "most": (tables.constant("lone_wide"), "length")}
        remarks.append(
            Remark("lone-wide", "wrong", values, source="handbook-parts-3.2", levers=("stood", "length"))
        )
    return remarks


def _dimensions(
    options: MeshFenceOptions, plantings: tuple[Planting, ...], grown: tuple[Plant, ...], edge: float
) -> tuple[Dimension, ...]:
    end, bay = options.length, float(posts.stations(options.length, options.post_spacing)[1])
    low, high = options.bottom_gap, options.bottom_gap + options.mesh_height
    dimensions = (
        Dimension(
            "options.length", "elevation", (0, 0, -options.depth), (end, 0, -options.depth), end, -0.32
        ),
        Dimension("options.post_spacing", "elevation", (0, 0, high), (bay, 0, high), bay, 0.45),
        Dimension("options.depth", "elevation", (0, 0, -options.depth), (0, 0, 0), options.depth, -0.6),
        Dimension(
            "options.mesh_height", "elevation", (end, 0, low), (end, 0, high), options.mesh_height, 0.75
        ),
        Dimension("options.bottom_gap", "elevation", (end, 0, 0), (end, 0, low), low, 1.6),
    )
    return (*dimensions, *plants.spacing_dimension(plantings, grown, edge))


_RUN_OUT = 0.16  # of the runs from the posts, before the plants [m]


def _run_heights(options: MeshFenceOptions) -> list[float]:
    """Return the heights of the runs before the mesh. [m]"""
    low, high = options.bottom_gap + options.run_step, options.bottom_gap + options.mesh_height
    return [float(z) for z in np.arange(low, max(high, low + 0.01), options.run_step)]


def _runs(options: MeshFenceOptions, xs: Array, side: float) -> list[Member]:
    """Return the runs of twine before the plants, a turn round each post."""
    row, members, end = tables.twines()[options.twine], [], _course(options).run
    turns = len(xs) * (4 * tables.posts()[options.post].soil_width + 2 * _RUN_OUT)
    for n, z in enumerate(_run_heights(options)):
        line = ((0.0, side * _RUN_OUT, z), (end, side * _RUN_OUT, z))
        members.append(
            Member(
                f"run-{n + 1}",
                "run",
                "twines",
                row.key,
                line,
                round(1.02 * end + turns + 0.6, 3),
                max(row.d, 0.002),
            )
        )
    return members
