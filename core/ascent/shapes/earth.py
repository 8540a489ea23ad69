"""The ground that a post stands in, as a bed has it and as the post is set."""

from __future__ import annotations

from dataclasses import dataclass, replace

from .. import tables
from ..plan.bed import BareBed, Tested
from ..tables import rows

NO_FILL = 0.02  # less fill than this is none [m]


@dataclass(frozen=True)
class PostGround:
    """The soil a post stands in.

    native: the soil itself.
    fill, fill_depth: bed fill over it, and how deep that is. [m]
    tamped: whether a post is set in a dug hole and tamped, rather than driven.
    loose, dug: what the top is made of that is dug over every year, and how deep that goes. [m]
    collar: diameter of the concrete round a post, none by default. [m]
    tested: how many times the assumed grip a pull test found.
    """

    native: rows.Soil
    fill: rows.Soil
    fill_depth: float
    tamped: bool
    loose: rows.Soil
    dug: float
    collar: float = 0.0
    tested: float = 1.0

    @property
    def setting(self) -> float:
        """Return the share of strength left by how the post was set, and by what a pull test said."""
        return (tables.constant("dug_soil") if self.tamped else 1.0) * self.tested

    @property
    def skinless(self) -> float:
        """Return the depth down to which no friction is counted: what is dug over, or fill, or the crumb of a
        turf. [m]
        """
        return max(self.dug, self.fill_depth, tables.constant("crumb"))

    def cast(self, post: rows.Post) -> rows.Post:
        """Return what stands in the soil where a post does: itself, or the collar of concrete round it."""
        return (
            replace(post, shape="round", a=self.collar, soil_width=self.collar, plate_m2=0.0)
            if self.collar
            else post
        )


def ground_of(bed: BareBed, setting: str) -> PostGround:
    """Return the ground of a bed for posts set in that way; a container has nothing but its mix to hold a
    post.

    What is dug over this year is loose earth of its own strength; ground left as it lies is the soil from the
    turf down; fill is loose as it comes. Nobody digs where concrete lies: a collar grips from the top.

    Source: handbook-5.3
    """
    soils = tables.soils()
    native = bed.fill if bed.kind == "container" else bed.soil
    concrete = setting == "concrete"
    loose = bed.top == "dug" and bed.raised_by <= NO_FILL and bed.kind != "container" and not concrete
    return PostGround(
        _as_tested(soils[native], bed.tested),
        _as_tested(soils[bed.fill], bed.tested),
        bed.raised_by if bed.kind != "container" else 0.0,
        setting == "tamped",
        soils["loose_tilled"],
        tables.constant("dug_depth") if loose else 0.0,
        tables.constant("collar") if concrete else 0.0,
        bed.tested.grip if bed.tested else 1.0,
    )


def _as_tested(soil: rows.Soil, tested: Tested | None) -> rows.Soil:
    """Return a soil as stiff as a pull test found it."""
    if tested is None:
        return soil
    stiffer = tested.stiffness
    return replace(soil, modulus=soil.modulus * stiffer, modulus_saturated=soil.modulus_saturated * stiffer)


def beside(ground: PostGround) -> PostGround:
    """Return the ground beside a raised bed, where there is no fill and nobody digs."""
    return replace(ground, fill_depth=0.0, dug=0.0)


def topmost(ground: PostGround, depth: float) -> PostGround:
    """Return the ground as something sees it that goes no deeper than that: the fill alone, where it is as
    deep. [m]
    """
    return replace(ground, native=ground.fill, fill_depth=0.0) if ground.fill_depth >= 0.6 * depth else ground
