"""Living support: how it carries: from fruit to ground, and how far it moves."""

from __future__ import annotations

from dataclasses import replace
from functools import cached_property

import numpy as np

from ... import tables
from ...checks import bending, lodging
from ...loads import crop, face
from ...loads.cases import by_week
from ...mechanics import Array, growth, wind
from ...mechanics import lodging as stems
from ...path.geometry import keys
from ...path.loadpath import Arrow, Link, Service
from ...patterns import posts, runs
from ...patterns.stand import Stand
from ...plan.structure import Planting
from ...site import Site
from ...tables import rows
from .geometry import BACKUP_HEIGHTS, EDGE, grid
from .options import LivingSupportOptions

_FADED, _WITHERED = 0.3, 0.5  # of its strength and of its leaf a host loses as it dries, judgement
_SWAYING = 1.5  # bending stiffness of a stem over its strength [m], judgement


class Block(Stand[LivingSupportOptions]):
    """Everything a living support's checks need, worked out once for its cases."""

    @cached_property
    def host(self) -> rows.Host:
        """Return the weaker of the hosts that stand in the block."""
        chosen = [tables.hosts()[self.options.host]]
        if self.options.mix == "alternate":
            chosen.append(tables.hosts()[self.options.second])
        return min(chosen, key=lambda row: row.stem_Nm)

    @cached_property
    def climbers(self) -> tuple[crop.Growth, ...]:
        """Return the course of the climbers, which are no taller than what carries them."""
        courses = super().growths
        return tuple(replace(course, top=np.minimum(course.top, self.living.top + 0.3)) for course in courses)

    @cached_property
    def living(self) -> crop.Growth:
        """Return the course of the hosts, sown so many days before the first climber."""
        first, hosts = self.structure.plantings[0], grid(self.options)
        row = tables.crops()[self.host.key]
        longer = self.season.with_hosts(self.options.head_start)
        sown = Planting(
            key="hosts",
            crop=row.key,
            count=min(len(hosts), 600),
            spacing=self.options.host_spacing,
            training="pruned",
            planted=first.planted,
        )
        course = crop.planting_on_face(sown, longer, len(self.season.spans), row.height_m)
        cover = course.cover * (1.0 - _WITHERED * self.ripening)
        return replace(
            course,
            cover=cover,
            shoot_kg=np.zeros_like(course.top),
            fruit_kg=np.zeros_like(course.top),
            high_kg=np.zeros_like(course.top),
        )

    @cached_property
    def growths(self) -> tuple[crop.Growth, ...]:
        """Return the climbers, and after them what carries them."""
        return (*self.climbers, self.living)

    @cached_property
    def host_days(self) -> Array:
        """Return days of growth since the hosts were sown, (..., W)."""
        return np.asarray(self.season.grown[0] - self.season.late + self.options.head_start)

    @cached_property
    def grown(self) -> Array:
        """Return the share of its full strength a stem has, (1, W, 1): it grows with the stem and fades once
        the ears are ripe.
        """
        row = tables.crops()[self.host.key]
        share = np.maximum(growth.logistic(self.host_days, row.t50_d, row.t95_d), 0.02) * (
            1.0 - _FADED * self.ripening
        )
        return by_week(share)

    @cached_property
    def ripening(self) -> Array:
        """Return how far the hosts have dried, from two weeks after their first harvest on, (W,)."""
        row = tables.crops()[self.host.key]
        ripe = (row.first_low_d + row.first_high_d) / 2 + 14.0
        return np.asarray(np.clip((self.host_days - ripe) / self.host.fades_d, 0.0, 1.0))

    @cached_property
    def hosts(self) -> int:
        return len(grid(self.options))

    @cached_property
    def shared(self) -> float:
        """Return how many climbers a stem carries on the average."""
        return sum(planting.count for planting in self.structure.plantings) / self.hosts

    @cached_property
    def vine(self) -> Array:
        """Return the mass of vine on one stem, (1, W, G). [kg]"""
        mass = (
            sum((s.plant_kg * s.planting.count for s in self.climbers), np.zeros(self.season.weeks))
            / self.hosts
        )
        return np.asarray(by_week(mass) * self.cases.crop)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one stem and where it acts, [N] and [m]: each stem bends by itself with its
        vine, and a block shelters itself.
        """
        cover = by_week(wind.mixed_solidity(*(s.cover for s in self.growths)))
        top = by_week(np.max([s.top for s in self.growths], axis=0))
        sheltered = self.options.rows >= self.host.least_rows and self.options.rows > 1
        shelter = stems.row_shelter(self.options.rows, tables.constant("follower")) if sheltered else 1.0
        leafy = np.maximum(top - tables.constant("stripped_free"), 0.0)
        bottom = tables.constant("stripped_free")
        share, height = face.at_height(bottom, bottom + leafy)
        pressure = (
            self.cases.leaf
            * share
            * wind.gust_pressure(self.cases.gust)
            * stems.free_streamlining(self.cases.gust)
        )
        drag = tables.constant("round_body") * face.drag_coefficient(cover)
        return np.asarray(pressure * drag * leafy * self.options.host_spacing * shelter), height

    @cached_property
    def leaning(self) -> Array:
        """Return the moment of the vine's weight on a leaning stem. [N·m]"""
        top = by_week(np.max([s.top for s in self.climbers], axis=0))
        return np.asarray(self.vine * tables.constant("gravity") * tables.constant("static_lean") * top)

    @property
    def backed(self) -> bool:
        return self.options.backup == "strings"

    @cached_property
    def left(self) -> float:
        """Return the share of a stem's moment that stays with stem and roots."""
        return 1.0 - tables.constant("backup_share") if self.backed else 1.0

    @cached_property
    def onto_strings(self) -> Array:
        """Return what the leaning stems of all rows put on a metre of the upper string. [N/m]"""
        force, height = self.blown
        moment = (1.0 - self.left) * (force * height + self.leaning)
        return np.asarray(moment / BACKUP_HEIGHTS[0] * self.options.rows / self.options.host_spacing)

    def path(self) -> tuple[Link, ...]:
        """Return the links from vine to ground."""
        force, height = self.blown
        moment = force * height + self.leaning
        stalks = keys(self.geometry.by_role("stem"))
        below = ("roots", "backup") if self.backed else ("roots",)
        levers = ("host", "backup", "rows", "host_spacing")
        checks = (
            lodging.stem(self.host, force * self.left, height, self.leaning * self.left, self.grown),
            lodging.carried(self.host, self.vine),
        )
        links = [
            Link(
                "host",
                stalks,
                ("hosts", self.host.key),
                below,
                levers,
                force,
                checks,
                (Arrow((EDGE, 0.0, 1.0), (0.0, 1.0, 0.0)),),
            ),
            Link(
                "roots",
                stalks,
                None,
                (),
                levers,
                force * self.left,
                (
                    lodging.roots(
                        self.host,
                        tables.soils()[_soil(self.site)],
                        moment * self.left,
                        self.grown,
                        self.cases,
                    ),
                ),
            ),
        ]
        return (*links, *(self._backup() if self.backed else ()))

    def _backup(self) -> tuple[Link, ...]:
        twine, post = tables.twines()[self.options.backup_twine], tables.posts()[self.options.post]
        xs = posts.stations(self.options.length, self.options.post_spacing)
        span, height = float(xs[1]), np.full((1, 1, 1), BACKUP_HEIGHTS[0])
        give = posts.give_along(post, self.ground, self.options.depth, BACKUP_HEIGHTS[0], self.cases)
        pull = runs.tension(twine, self.onto_strings, span, len(xs) - 1, 1.0 / give)
        inner, corner = self.onto_strings * span, np.hypot(pull, self.onto_strings * span / 2)
        worst = np.maximum(inner, corner)
        members = keys(self.geometry.by_role("post"))
        return (
            Link(
                "backup",
                keys(self.geometry.by_role("run")),
                ("twines", twine.key),
                ("post",),
                ("backup_twine", "post_spacing"),
                pull,
                (runs.run(twine, self.onto_strings, span, pull, self.tied_on),),
            ),
            Link(
                "post",
                members,
                ("posts", post.key),
                ("soil",),
                ("post", "post_spacing"),
                worst,
                (bending.post_across(post, worst, height, np.ones((1, 1, 1))),),
            ),
            self.soil_grip(post, self.options.depth, worst, height, ("depth", "post", "post_spacing")),
        )

    def service(self) -> tuple[Service, ...]:
        """Return how far the stems lean."""
        force, height = self.blown
        top = by_week(self.living.tallest)
        stiffness = _SWAYING * self.host.stem_Nm * self.grown
        lean = self.left * force * height**2 * (3 * top - height) / (6 * stiffness)
        return (
            Service(
                "host-lean",
                np.minimum(lean, top),
                tables.crops()[self.host.key].height_m / tables.constant("host_sway"),
                "crops-10",
                ("backup", "rows"),
            ),
        )

    def balance(self) -> tuple[Array, Array]:
        """Return the wind across the block, and what roots and strings take of it as moments about the
        ground. [N·m]
        """
        force, height = self.blown
        links = {link.key: link for link in self.path()}
        taken = np.asarray(links["roots"].checks[0].demand * self.hosts)
        if self.backed:
            load, _ = links["backup"].checks[0].terms["load"]
            taken = (
                taken + load * self.hosts / self.options.rows * self.options.host_spacing * BACKUP_HEIGHTS[0]
            )
        return (force * height + self.leaning) * self.hosts, taken


def _soil(site: Site) -> str:
    return site.bed.fill if site.bed.raised_by > 0.15 else site.bed.soil
