"""Mesh fence: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Literal

import numpy as np

from ... import tables
from ...checks import bending, embedment, tension, ties
from ...checks import mesh as mesh_checks
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array, relaxation, wind
from ...path.geometry import keys
from ...path.loadpath import Check, Link, Service
from ...patterns import backs, course, mesh_face, posts, pots, runs
from ...patterns.end_assembly import EndAssembly, EndLine, loaded_line
from ...patterns.stand import PostRow
from ...tables import rows
from .geometry import course_of, ends_of, run_heights
from .options import MeshFenceOptions


class Fence(PostRow[MeshFenceOptions]):
    """Everything a mesh fence's checks need, worked out once for its cases."""

    @cached_property
    def mesh(self) -> rows.Mesh:
        return tables.meshes()[self.options.mesh]

    @cached_property
    def course(self) -> course.RowCourse:
        return course_of(self.options)

    @property
    def lone(self) -> bool:
        """Return whether one post in the middle carries it all."""
        return self.options.stood == "middle"

    @cached_property
    def tributaries(self) -> Array:
        """Return the length of mesh that each post takes, (n,). [m]"""
        bays = np.diff(self.xs)
        return np.array([self.bay]) if self.lone else (np.append(bays, 0.0) + np.append(0.0, bays)) / 2

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
        return ends_of(self.options, self.site, len(self.xs), self.geometry.top).standing(self.geometry)

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
        return relaxation.tied_bays(self.course.back)

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
        return run_heights(self.options)

    @cached_property
    def leaning(self) -> Array:
        """Return the side load on a metre of one run from plants that lean on it. [N/m]"""
        total = self.nothing
        for growth in self.growths:
            lines = 2.0 if growth.planting.side == "both" else 1.0
            total = total + by_week(growth.plant_kg * lines / growth.planting.spacing) * self.cases.crop
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
            checks.append(mesh_checks.weld(self.mesh, self.tied(tables.ties()[self.options.tie]).demand))
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

    def tied(self, tie: rows.Tie) -> Check:
        """Return the check of the top tie of a post."""
        borne = self.rests_on_ground or self.hangs_from_top
        weight = np.zeros((1, 1, 1)) if borne else self.bay_weight
        stiff = self.mesh.material.startswith("welded")
        return ties.mesh_tie(tie, self.onto_posts, weight, self.options.ties_per_post, self.tied_on, stiff)

    def _ties(self) -> Link:
        next_link = ("post",) if self.options.top == "none" else ("top-line", "post")
        return Link.of(
            "mesh-tie",
            keys(self.geometry.by_role("tie")),
            tables.ties()[self.options.tie],
            next_link,
            ("tie", "ties_per_post", "top", "post_spacing", "bottom_gap"),
            self.onto_posts,
            lambda tie: (self.tied(tie),),
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
    def backed(self) -> backs.TieBack:
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

    def _lines(self) -> list[EndLine]:
        """Return what pulls the end posts in: the mesh, runs before it, a top wire."""
        state, none = self.mesh_state, self.nothing

        def left(give: Array | float) -> Array:
            belly = relaxation.belly_after(give, self.bay, self.shortened)
            return state.wires * relaxation.pull_at(state.load, self.bay, belly, state.bent(belly))

        lines = [EndLine(self.middle, state.pull, left, none, lambda _give: none)]
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
