"""A post pulled at a height with a scale: what its movement says of the soil."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

_LEAST = 0.1  # of the greatest pull, below which slack and not soil is read
_LIMBER = 0.1  # share of the movement that is the soil's at least, or the post is too limber to tell
_YIELDS = 2.5  # times less stiff at the last pulls than at the first: it moves on


@dataclass(frozen=True)
class Pulled:
    """What a pull test says.

    per_force: movement at the pull's height, post and soil. [m/N] error: of that, one standard error; nothing
    where two readings leave none to be seen. bent: of it, the post's own bending. [m/N]
    modulus: of lateral reaction: k [N/m²] of clay-type soil, n_h [N/m³] of sand-type; nothing where the post
    is too limber to tell. low, high: two standard errors about it.
    held: the greatest pull. [N] left: movement that stayed when the pull was gone, nothing where it was not
    let back. [m] moving_on: whether it gave ever more at the last pulls.
    """

    per_force: float
    error: float | None
    bent: float
    modulus: float | None
    low: float | None
    high: float | None
    held: float
    left: float | None
    moving_on: bool


def pulled(
    readings: Sequence[tuple[float, float]],
    height: float,
    depth: float,
    stiffness: float,
    soil: Literal["clay", "sand"],
) -> Pulled:
    """Return what several pulls, up and perhaps back, say of the soil.

    Args:
        readings: Pull [N] and movement at its height [m], in the order they were taken.
        height: Of the pull above the ground. [m]
        depth: Of the post in it. [m]
        stiffness: EI of the post. [N·m²]
        soil: Whether its modulus is the same all the way down, or grows with depth.

    Returns:
        The movement per force [m/N] with its error, the modulus within bounds, and how it held.

    Raises:
        ValueError: Fewer than two different pulls on the way up, or no movement with the pull.

    Source: handbook-5.5
    """
    forces, moves = (np.array(column, dtype=float) for column in zip(*readings, strict=True))
    top = int(np.argmax(forces))
    held = float(forces[top])
    up = slice(0, top + 1)
    used = forces[up] >= _LEAST * held
    if len(np.unique(forces[up][used])) < 2:
        used[:] = True  # one pull from nothing: slack cannot be told from soil
    x, y = forces[up][used], moves[up][used]
    if len(np.unique(x)) < 2:
        raise ValueError("two different pulls on the way up are needed at least")
    slope, error = _slope(x, y)
    if slope <= 0:
        raise ValueError("a movement that grows with the pull is needed")
    bent = height**3 / (3 * stiffness)
    own = slope - bent
    rule = _of_clay if soil == "clay" else _of_sand
    telling = own > _LIMBER * slope
    spread = 2.0 * error if error is not None else None
    return Pulled(
        slope,
        error,
        bent,
        rule(own, height, depth) if telling else None,
        rule(own + spread, height, depth) if telling and spread is not None else None,
        rule(max(own - spread, 0.05 * own), height, depth) if telling and spread is not None else None,
        held,
        _left(forces[top:], moves[top:], held),
        _moves_on(x, y),
    )


def _slope(x: np.ndarray, y: np.ndarray) -> tuple[float, float | None]:
    """Return the slope of the best line, slack left out, and its standard error."""
    design = np.stack([x, np.ones_like(x)], axis=1)
    (slope, _), residual, *_ = np.linalg.lstsq(design, y, rcond=None)
    if len(x) < 3:
        return float(slope), None
    rest = float(residual[0]) if len(residual) else 0.0
    scatter = float(np.sum((x - x.mean()) ** 2))
    return float(slope), float(np.sqrt(rest / (len(x) - 2) / scatter))


def _of_clay(per_force: float, height: float, depth: float) -> float:
    return (
        4 * (1 + 1.5 * height / depth) / depth + 6 * height * (1 + 2 * height / depth) / depth**2
    ) / per_force


def _of_sand(per_force: float, height: float, depth: float) -> float:
    return (
        18 * (1 + 4 / 3 * height / depth) / depth**2 + 24 * height * (1 + 1.5 * height / depth) / depth**3
    ) / per_force


def _left(forces: np.ndarray, moves: np.ndarray, held: float) -> float | None:
    """Return the movement that stayed on the way back, read where hardly any pull is left."""
    slack = forces <= _LEAST * held
    return float(moves[slack][-1]) if slack[1:].any() else None


def _moves_on(x: np.ndarray, y: np.ndarray) -> bool:
    """Return whether the last step gave several times what the first gave for its pull."""
    order = np.argsort(x)
    steps, gives = np.diff(x[order]), np.diff(y[order])
    real = steps > 1e-9
    if real.sum() < 2:
        return False
    each = gives[real] / steps[real]
    return bool(each[0] > 0 and each[-1] > _YIELDS * each[0])


def bound_at(pull: float, height: float, other: float, depth: float, soil: Literal["clay", "sand"]) -> float:
    """Return the least that a post which held a pull holds at another height. [N]

    Args:
        pull: That it held. [N]
        height: Of that pull. [m]
        other: Of the force asked about. [m]
        depth: Of the post. [m]
        soil: Of which it turns about another point.

    Returns:
        A lower bound. [N]

    Source: handbook-5.5
    """
    turn = depth if soil == "sand" else (0.5 if other > height else 0.75) * depth
    return pull * (height + turn) / (other + turn)
