"""Living support: a block of maize, sunflower or okra, sown first, that carries a climber up its stems."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import cached_property
from typing import Annotated, ClassVar, Literal

import numpy as np

from .. import tables
from ..checks import bending, lodging
from ..family.options import DEEPER, choice, item, measure, row_of
from ..family.protocol import Family, Need, Proposal, Reason
from ..loads import crop, face
from ..loads.cases import Cases
from ..mechanics import Array, growth, wind
from ..mechanics import lodging as stems
from ..path.geometry import Dimension, Geometry, Member, Plant, keys, located
from ..path.loadpath import Arrow, Link, Remark, Service
from ..patterns import plants, posts, runs
from ..patterns.stand import Stand
from ..plan.model import Planting, Site, Structure, Typed
from ..remarks import fits
from ..tables import rows

_BACKUP_HEIGHTS = (1.2, 0.6)  # of the strings round the block [m], parts handbook 3.13
_EDGE = 0.15  # of the block from the row's ends [m]
_FADED, _WITHERED = 0.3, 0.5  # of its strength and of its leaf a host loses as it dries, judgement
_SWAYING = 1.5  # bending stiffness of a stem over its strength [m], judgement


class LivingSupportOptions(Typed):
    """What must be decided of a living support. Lengths in metres, times in days."""

    host: Annotated[str, row_of("hosts")] = item("hosts", "hosts", "corn", asked=True)
    mix: Literal["one", "alternate"] = choice("hosts", "one", asked=True)
    second: Annotated[str, row_of("hosts")] = item(
        "hosts", "hosts", "sunflower", when=("mix", ("alternate",)), asked=True
    )
    head_start: int = measure("hosts", "count", 18, 0, 45, 1, tries=(7, 14), asked=True)
    length: float = measure("block", "length", 3.0, 0.6, 12.0, 0.05, asked=True)
    rows: int = measure("block", "count", 4, 1, 10, 1, tries=(1, 2, 3), asked=True)
    row_spacing: float = measure("block", "length", 0.75, 0.25, 1.2, 0.01, asked=True)
    host_spacing: float = measure("block", "length", 0.30, 0.15, 0.6, 0.01, tries=(-0.05, -0.1), asked=True)
    below: Literal["bare", "squash", "greens"] = choice("block", "bare", asked=True)
    backup: Literal["none", "strings"] = choice("backup", "none")
    backup_twine: Annotated[str, row_of("twines", "run")] = item(
        "backup", "twines", "polyester_3", "run", when=("backup", ("strings",))
    )
    post: Annotated[str, row_of("posts", "post")] = item(
        "backup", "posts", "tpost_1.8", "post", when=("backup", ("strings",))
    )
    post_spacing: float = measure(
        "backup", "length", 1.0, 0.6, 4.0, 0.05, tries="bays", when=("backup", ("strings",))
    )
    depth: float = measure(
        "backup", "length", 0.60, 0.2, 0.9, 0.01, tries=DEEPER, when=("backup", ("strings",))
    )


class _Block(Stand[LivingSupportOptions]):
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
        start, end = self.season.spans[0]
        first, hosts = self.structure.plantings[0], _grid(self.options)
        row = tables.crops()[self.host.key]
        longer = replace(
            self.season, spans=(*self.season.spans, (start - self.options.head_start, max(end, start + 1)))
        )
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
        """Return days since the hosts were sown, (W,)."""
        return np.asarray(self.season.growing_days(0) + self.options.head_start)

    @cached_property
    def grown(self) -> Array:
        """Return the share of its full strength a stem has, (1, W, 1): it grows with the stem and fades once
        the ears are ripe.
        """
        row = tables.crops()[self.host.key]
        share = np.maximum(growth.logistic(self.host_days, row.t50_d, row.t95_d), 0.02) * (
            1.0 - _FADED * self.ripening
        )
        return np.asarray(share.reshape(1, -1, 1))

    @cached_property
    def ripening(self) -> Array:
        """Return how far the hosts have dried, from two weeks after their first harvest on, (W,)."""
        row = tables.crops()[self.host.key]
        ripe = (row.first_low_d + row.first_high_d) / 2 + 14.0
        return np.asarray(np.clip((self.host_days - ripe) / self.host.fades_d, 0.0, 1.0))

    @cached_property
    def hosts(self) -> int:
        return len(_grid(self.options))

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
        return np.asarray(mass[None, :, None] * self.cases.crop)

    @cached_property
    def blown(self) -> tuple[Array, Array]:
        """Return the wind on one stem and where it acts, [N] and [m]: each stem bends by itself with its
        vine, and a block shelters itself.
        """
        cover = wind.mixed_solidity(*(s.cover for s in self.growths))[None, :, None]
        top = np.max([s.top for s in self.growths], axis=0)[None, :, None]
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
        top = np.max([s.top for s in self.climbers], axis=0)[None, :, None]
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
        return np.asarray(moment / _BACKUP_HEIGHTS[0] * self.options.rows / self.options.host_spacing)

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
                (Arrow((_EDGE, 0.0, 1.0), (0.0, 1.0, 0.0)),),
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
        span, height = float(xs[1]), np.full((1, 1, 1), _BACKUP_HEIGHTS[0])
        give = posts.give_along(post, self.ground, self.options.depth, _BACKUP_HEIGHTS[0], self.cases)
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
        top = np.max(self.living.top)
        stiffness = _SWAYING * self.host.stem_Nm * self.grown
        lean = self.left * force * height**2 * (3 * top - height) / (6 * stiffness)
        return (
            Service(
                "host-lean",
                np.minimum(lean, top),
                top / tables.constant("host_sway"),
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
                taken + load * self.hosts / self.options.rows * self.options.host_spacing * _BACKUP_HEIGHTS[0]
            )
        return (force * height + self.leaning) * self.hosts, taken


class LivingSupport(Family[LivingSupportOptions]):
    """Stems that carry a climber."""

    key: ClassVar[str] = "living-support"
    round: ClassVar[bool] = True
    options = LivingSupportOptions

    def propose(self, need: Need, site: Site) -> Proposal:
        """Return a block of hosts for a climber on a bed, every value with its reason."""
        heavy = tables.crops()[need.crop].shoot_kg > 0.5
        host = tables.hosts()["sunflower" if heavy else "corn"]
        apart = max(tables.crops()[host.key].spacing_m, 0.15)
        usual = round((host.start_low_d + host.start_high_d) / 2)
        ahead = next((days for days in range(usual, 46) if _tall(host.key, days) >= host.ready_low_m), 45)
        row_spacing = round(min(0.75, max((site.bed.width - 0.2) / 3, 0.25)), 2)
        rows_ = max(min(math.floor((site.bed.width - 0.2) / row_spacing + 1e-6) + 1, 4), 1)
        length = min(max(math.floor(min(site.bed.length, 12.0) * 20 + 1e-6) / 20, 0.6), 12.0)
        options = LivingSupportOptions(
            host=host.key,
            head_start=ahead,
            length=length,
            rows=rows_,
            row_spacing=row_spacing,
            host_spacing=apart,
        )
        hosts = len(_grid(options))
        fitting = max(round(hosts / 2), 1)
        row = plants.sown(need, site, longest=12.0, spacing=min(max(2 * apart, 0.03), 3.0))
        count = need.count or min(fitting, 600)
        planting = row.plantings[0].model_copy(update={"count": count})
        reasons = {
            **row.reasons,
            planting.path("count"): Reason(
                "count_asked" if need.count else "climbers",
                {"count": (count, "count"), "hosts": (hosts, "count")},
            ),
            planting.path("spacing"): Reason("climber_spacing"),
            "length": Reason("block_length"),
            "host": Reason("host_heavy" if heavy else "host", words={"crop": row.crop.name}),
            "mix": Reason("mix"),
            "head_start": Reason(
                "head_start",
                {
                    "days": (options.head_start, "count"),
                    "low": (host.ready_low_m, "length"),
                    "high": (host.ready_high_m, "length"),
                },
            ),
            "rows": Reason("rows", {"rows": (rows_, "count"), "least": (host.least_rows, "count")}),
            "row_spacing": Reason("row_spacing", {"spacing": (row_spacing, "length")}),
            "host_spacing": Reason("host_spacing", {"spacing": (apart, "length")}),
            "below": Reason("below"),
            "backup": Reason("backup"),
        }
        return Proposal(options, (planting,), reasons)

    def geometry(
        self, options: LivingSupportOptions, plantings: tuple[Planting, ...], site: Site
    ) -> Geometry:
        """Return stems, climbers, and any strings round the block with their posts, in metres."""
        kinds = [options.host, options.second if options.mix == "alternate" else options.host]
        members, grown = [], list(_climbers(options, plantings))
        height = max(tables.crops()[kind].height_m for kind in kinds)
        for n, (x, y, row) in enumerate(_grid(options)):
            kind = kinds[row % 2]
            tall = tables.crops()[kind].height_m
            members.append(
                Member(f"stem-{n + 1}", "stem", "hosts", kind, ((x, y, 0.0), (x, y, tall)), 0.0, 0.025)
            )
            grown.append(Plant((x, y, 0.0), len(plantings)))
        if options.backup == "strings":
            members += _fenced(options)
        half = _half(options)
        dimensions = (
            Dimension(
                "options.length", "plan", (0, -half, 0), (options.length, -half, 0), options.length, -0.5
            ),
            Dimension(
                "options.host_spacing",
                "elevation",
                (_EDGE, 0, height),
                (_EDGE + options.host_spacing, 0, height),
                options.host_spacing,
                0.5,
            ),
            *(
                (
                    Dimension(
                        "options.row_spacing",
                        "end",
                        (0, -half, 0),
                        (0, -half + options.row_spacing, 0),
                        options.row_spacing,
                        -0.5,
                    ),
                )
                if options.rows > 1
                else ()
            ),
        )
        depth = options.depth if options.backup == "strings" else 0.0
        return Geometry(
            located(members), tuple(grown), dimensions, (), options.length, height, depth, climb=height
        )

    def loaded(
        self,
        options: LivingSupportOptions,
        geometry: Geometry,
        structure: Structure,
        site: Site,
        cases: Cases,
    ) -> _Block:
        """Return the block under the loads of the cases."""
        return _Block(options, geometry, structure, site, cases)

    def remarks(
        self, options: LivingSupportOptions, geometry: Geometry, structure: Structure, site: Site
    ) -> tuple[Remark, ...]:
        """Return what fits and what does not: the timing above all, and how little is known."""
        host, first = tables.hosts()[options.host], structure.plantings[0]
        name = {"host": tables.hosts()[options.host].name, "crop": tables.crops()[first.crop].name}
        tall = _tall(options.host, options.head_start)
        sizes = {
            "tall": (tall, "length"),
            "low": (host.ready_low_m, "length"),
            "high": (host.ready_high_m, "length"),
        }
        key, level = ("host-small", "wrong") if tall < 0.8 * host.ready_low_m else ("host-ready", "fine")
        if tall > 2.5 * host.ready_high_m:
            key, level = "host-tall", "watch"
        remarks = [Remark(key, level, sizes, name, "crops-10", ("head_start",))]  # type: ignore[arg-type]
        remarks += fits.of_ground(site.bed, options.length, 0.0)
        if 2 * _half(options) > site.bed.width + 1e-6:
            wide = {"wide": (2 * _half(options), "length"), "bed": (site.bed.width, "length")}
            remarks.append(
                Remark(
                    "block-wide", "wrong", wide, source="handbook-parts-3.13", levers=("rows", "row_spacing")
                )
            )
        if options.rows < host.least_rows:
            values = {"rows": (float(options.rows), "count"), "least": (float(host.least_rows), "count")}
            remarks.append(Remark("block-not-row", "watch", values, name, "crops-10", ("rows",)))
        for planting in structure.plantings:
            crop_ = tables.crops()[planting.crop]
            remarks += fits.of_suit(planting, self.key)
            if crop_.habit == "twiner" and crop_.shoot_kg > 0.5 and options.host == "corn":
                remarks.append(
                    Remark(
                        "host-overwhelmed",
                        "wrong",
                        words={**name, "crop": crop_.name},
                        source="crops-10",
                        levers=("host",),
                    )
                )
            if crop_.height_m > geometry.climb + 0.6:
                tall_vine = {"vine": (crop_.height_m, "length"), "top": (geometry.climb, "length")}
                remarks.append(
                    Remark(
                        "vine-tops-host",
                        "watch",
                        tall_vine,
                        {**name, "crop": crop_.name},
                        "crops-10",
                        ("host",),
                    )
                )
        if options.below != "bare":
            remarks.append(Remark(f"below-{options.below}", "fine", source="handbook-parts-3.13"))
        remarks.append(Remark("host-unsure", "watch", words=name, source="crops-10"))
        return tuple(remarks)

    def cautions(self, geometry: Geometry) -> tuple[str, ...]:
        """Return the cautions of growing a living support."""
        cautions = ("services", "driving") if geometry.by_role("post") else ()
        return (*cautions, "lodged", "judgement")


def _tall(host: str, days: int) -> float:
    """Return how tall a host stands so many days after it was sown. [m]"""
    row = tables.crops()[host]
    return row.height_m * min(1.0, float(growth.logistic(days, row.t50_d, row.t95_d)) / 0.5)


def _soil(site: Site) -> str:
    return site.bed.fill if site.bed.raised_by > 0.15 else site.bed.soil


def _half(options: LivingSupportOptions) -> float:
    """Return half the width of the block. [m]"""
    return (options.rows - 1) * options.row_spacing / 2


def _grid(options: LivingSupportOptions) -> list[tuple[float, float, int]]:
    """Return where the hosts stand, and in which row."""
    count = max(math.floor((options.length - 2 * _EDGE) / options.host_spacing + 1e-6) + 1, 1)
    start = (options.length - (count - 1) * options.host_spacing) / 2
    return [
        (start + i * options.host_spacing, row * options.row_spacing - _half(options), row)
        for row in range(options.rows)
        for i in range(count)
    ]


def _climbers(options: LivingSupportOptions, plantings: tuple[Planting, ...]) -> list[Plant]:
    """Return the climbers, spread evenly over the hosts, each beside one and up its stem."""
    hosts, climbers = _grid(options), []
    for index, planting in enumerate(plantings):
        sides = {"left": (1.0,), "right": (-1.0,), "both": (1.0, -1.0)}[planting.side]
        for n in range(planting.count):
            row = (
                int((n + 0.5) * len(hosts) / planting.count)
                if planting.count <= len(hosts)
                else n % len(hosts)
            )
            x, y, _ = hosts[row if planting.side != "left" else _opposite(row, hosts, options)]
            foot = (x, y + sides[n % len(sides)] * plants.OFFSET, 0.0)
            climbers.append(Plant(foot, index, (foot, (x, y, 0.3), (x, y, 10.0))))
    return climbers


def _opposite(number: int, hosts: list[tuple[float, float, int]], options: LivingSupportOptions) -> int:
    """Return the host across the block's middle line from another, so that left mirrors right."""
    count = len(hosts) // options.rows
    row, place = divmod(number, count)
    return (options.rows - 1 - row) * count + place


def _fenced(options: LivingSupportOptions) -> list[Member]:
    """Return posts along both sides of the block and strings round it."""
    post, twine = tables.posts()[options.post], tables.twines()[options.backup_twine]
    xs, y, top = (
        posts.stations(options.length, options.post_spacing),
        _half(options) + 0.2,
        _BACKUP_HEIGHTS[0] + 0.1,
    )
    bought = posts.stock_length(post, options.depth + top)
    members: list[Member] = []
    for side in (1.0, -1.0):
        for x in map(float, xs):
            members += posts.standing(
                post,
                len(members) + 1,
                (x, side * y, -options.depth),
                (x, side * y, bought - options.depth),
                bought,
            )
    around = 2 * (options.length + 2 * y) + 4 * 0.25 + len(xs) * 2 * 0.2
    for n, z in enumerate(_BACKUP_HEIGHTS):
        loop = ((0.0, y, z), (options.length, y, z), (options.length, -y, z), (0.0, -y, z), (0.0, y, z))
        members.append(Member(f"run-{n + 1}", "run", "twines", twine.key, loop, around, twine.d))
    return members
