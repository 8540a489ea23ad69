"""Weave: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array, beam, cable, relaxation
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts, runs
from ...patterns.end_assembly import EndAssembly, loaded_line
from ...patterns.stand import PostRow
from .geometry import ends_of, heights
from .options import WeaveOptions


class Woven(PostRow[WeaveOptions]):
    """Everything the checks of a weave need, worked out once for its cases."""

    @cached_property
    def heights(self) -> Array:
        return np.array(heights(self.options))

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
            total = total + by_week(mass * centre) * self.cases.crop
        return np.asarray(
            total * tables.constant("gravity") * math.sin(math.radians(tables.constant("lean_angle")))
        )

    @cached_property
    def moment(self) -> Array:
        """Return the moment that the runs of a metre hold. [N·m/m]"""
        return np.asarray(self.borne * (self.leaning + self.wind.force * self.wind.height))

    @cached_property
    def placed(self) -> Array:
        """Return which runs are up in each week, over cases and runs, (..., 1, W, 1, R): one goes on as the
        plants pass it.
        """
        top = by_week(np.max([s.top for s in self.growths], axis=0))[..., None]
        return np.asarray(self.heights <= np.maximum(top, self.heights[0]) + 1e-9, dtype=float)

    @cached_property
    def squares(self) -> Array:
        """Return the sum of the squared heights of the runs that are up, (1, W, 1). [m²]"""
        return np.asarray(np.sum(self.placed * self.heights**2, axis=-1))

    @cached_property
    def loads(self) -> Array:
        """Return the side load on a metre of each run, (..., S, W, G, R), as its height is. [N/m]"""
        return np.asarray(self.placed * self.heights * (self.moment / self.squares)[..., None])

    @cached_property
    def on_post(self) -> tuple[Array, Array]:
        """Return the push of a bay's runs on a line post and where it acts, [N] and [m]."""
        levers = np.sum(self.placed * self.heights, axis=-1)
        return np.asarray(self.moment * levers / self.squares * self.bay), np.asarray(self.squares / levers)

    @cached_property
    def ends(self) -> EndAssembly:
        return ends_of(self.options, self.site).standing(self.geometry)

    def _pulls(self, loads: Array) -> Array:
        twine = tables.twines()[self.options.twine]
        give = self.ends.stiffness(float(np.mean(self.heights)), self.cases) / len(self.heights)
        axial = relaxation.with_ends(
            twine.break_N / twine.stretch, give[..., None], self.bay, relaxation.tied_bays(len(self.xs) - 1)
        )
        return cable.loaded_tension(loads, self.bay, tables.constant("twine_pretension"), axial)

    @cached_property
    def pulls(self) -> Array:
        """Return the pull of each run, (..., S, W, G, R). [N]"""
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
        load, pull = np.max(self.loads, axis=-1), np.max(self.pulls, axis=-1)
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
        cane, load = tables.posts()[self.options.cane], np.max(self.loads, axis=-1)
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
        lean = self.borne * self.placed * self.heights * (self.leaning / self.squares)[..., None]
        still, twice = self._pulls(lean) * self.placed, 2.0 if self.options.ends == "double" else 1.0
        bays = relaxation.tied_bays(len(self.xs) - 1)
        lines = [
            loaded_line(
                h,
                self.pulls[..., n] / twice,
                self.loads[..., n],
                still[..., n] / twice,
                lean[..., n],
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
            belly = np.asarray(beam.span_sag(np.max(self.loads, axis=-1), self.bay, bending.stiffness(cane)))
        else:
            belly = (
                np.max(self.loads, axis=-1) * self.bay**2 / (8 * np.maximum(np.max(self.pulls, axis=-1), 1.0))
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
