"""What else is on the garden plan: paths, walls, buried lines, posts."""

from __future__ import annotations

from typing import Literal

from pydantic import Field, model_validator

from .fields import Named, Points

FeatureKind = Literal[
    "path", "wall", "fence", "door", "drip-line", "water-pipe", "cable", "steel-post", "stump"
]
ROUND: tuple[FeatureKind, ...] = ("steel-post", "stump")


class Feature(Named):
    """What else is on the plan: a path, a wall or fence, something buried to keep clear of, something to tie
    to.

    A post or a stump is one point, everything else a line through two points or more.
    """

    kind: FeatureKind
    points: Points
    width: float = Field(
        0.1,
        ge=0.005,
        le=20.0,
        description="of a path, a wall, a trunk; of a buried line its own thickness, m",
    )
    depth: float | None = Field(None, ge=0.0, le=5.0, description="of something buried, m; unknown when null")
    height: float | None = Field(None, ge=0.3, le=6.0, description="of a wall or fence, m; unknown when null")

    @model_validator(mode="after")
    def _enough_points(self) -> Feature:
        lone = self.kind in ROUND
        if lone != (len(self.points) == 1) or (not lone and len(set(self.points)) < 2):
            raise ValueError(
                f"{'one point' if lone else 'two points or more that differ'} for a {self.kind} is allowed"
            )
        return self
