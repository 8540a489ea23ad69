"""Crossed poles: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, tension
from ...loads import face
from ...loads.cases import by_week
from ...mechanics import Array, wind
from ...path.geometry import keys
from ...path.loadpath import Arrow, Check, Link, Service
from ...patterns import raked
from ...patterns import strings as hung
from ...patterns.end_assembly import EndAssembly, loaded_line, pushed_along
from ...patterns.stand import Bays
from ...shapes import wear
from ...tables import rows
from .geometry import ends_of, height_of, run_of
from .options import CrossedPolesOptions


class Crossed(Bays[CrossedPolesOptions]):
    """Everything the checks of crossed poles need, worked out once for its cases."""

    spaced_by = "pair_spacing"

    @cached_property
    def height(self) -> float:
        return height_of(self.options)

    @cached_property
    def post(self) -> rows.Post:
        return wear.after(tables.posts()[self.options.pole], self.options.post_age)

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
        return np.asarray(tables.constant("gravity") * by_week(total))

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
    def poles(self) -> raked.Splayed:
        force, lever = self.blown
        resting = np.asarray(self.bare_weight + 0.5 * self.shoot)
        return raked.Splayed(
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
        return ends_of(self.options, self.site).standing(self.geometry)

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
        stand = raked.links(self, self.poles, binding, levers)
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
            wire, run = tables.wires()[self.options.brace_wire], run_of(self.options)
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
        services = [raked.lean(self, self.poles, ("spread", "in_soil"))]
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
