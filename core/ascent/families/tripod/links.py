"""Tripod: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

import math
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import legs, strings
from ...loads import crop, face
from ...loads.cases import by_week
from ...mechanics import Array, raked_legs, wind
from ...path.loadpath import Link, Service, Strength
from ...patterns import pots, raked
from ...patterns.stand import Stand
from ...shapes import wear
from .geometry import OUTSIDE, height_of, spares
from .options import TripodOptions


class TripodStand(Stand[TripodOptions]):
    """Everything the checks of a tripod need, worked out once for its cases."""

    @cached_property
    def height(self) -> float:
        return height_of(self.options)

    @cached_property
    def shares(self) -> tuple[float, ...]:
        """Return how many plants of each planting climb the fullest set."""
        return tuple(
            float(math.ceil(planting.count / self.options.sets)) for planting in self.structure.plantings
        )

    @cached_property
    def bare_weight(self) -> float:
        """Return the weight of the poles of one set. [N]"""
        count = self.options.legs + spares(self.options)
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
        return np.asarray(tables.constant("gravity") * by_week(total))

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
        wide = raked_legs.ring_width(options.radius, options.legs)
        leafy = (bottom, bottom + self.face.leaf_height)
        return raked.blown(self.face.pressure, leafy, wide, 2 * OUTSIDE, self.height, np.asarray(on_poles))

    @cached_property
    def poles(self) -> raked.Splayed:
        post, (force, lever) = (
            wear.after(tables.posts()[self.options.pole], self.options.post_age),
            self.blown,
        )
        resting = np.asarray(self.bare_weight + 0.5 * self.shoot)
        return raked.Splayed(
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
        return Strength(2.0 * tied.allowable, 2.0 * tied.median)

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
        return (*stems, *raked.links(self, self.poles, binding, levers, below), *pot)

    def service(self) -> tuple[Service, ...]:
        """Return how far the top moves over."""
        return (raked.lean(self, self.poles, ("radius", "in_soil", "centre")),)

    def balance(self) -> tuple[Array, Array]:
        """Return the wind's moment on all sets that no stake takes, and what their feet make of it. [N·m]"""
        poles = self.poles
        return poles.force * poles.lever * self.options.sets, poles.taken * self.options.sets
