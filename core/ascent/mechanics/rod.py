"""A bent strip as a chain of stiff links: its shape between stops and ties, under weight, and when it sways
away.

Slow and general. The shapes of a strip without weight stand in a table made with it (`tools/arch_table.py`).
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from . import Array

_EVEN, _NEAR = 1e-6, 0.15  # of a symmetric strip, and of the next shape on its path [rad]


class Shape(NamedTuple):
    """A bent strip of unit length and stiffness: angles of its links, its nodes, its forces, and how stable
    it is.

    multipliers: of the stops and ties, from which the pushes follow; `stable` is the least eigenvalue of what
    can still move.
    """

    angles: Array
    x: Array
    y: Array
    multipliers: Array
    stable: float

    @property
    def foot(self) -> float:
        """Return the outward push on the left stop."""
        return float(self.multipliers[0] + (self.multipliers[2] if len(self.multipliers) > 2 else 0.0))

    @property
    def tie(self) -> float:
        """Return the outward push on the left tie."""
        return -float(self.multipliers[2]) if len(self.multipliers) > 2 else 0.0

    @property
    def other_tie(self) -> float:
        """Return the outward push on the right tie."""
        return -float(self.multipliers[3]) if len(self.multipliers) > 2 else 0.0

    @property
    def clamp(self) -> float:
        """Return the moment at the left end of a clamped strip, L/EI times; it bends its leg outward."""
        return float(np.pi / 2 - self.angles[0]) * 2.0 * len(self.angles)

    @property
    def curvature(self) -> float:
        """Return the sharpest bend, over the length."""
        return float(np.max(np.abs(np.diff(self.angles)))) * len(self.angles)

    @property
    def energy(self) -> float:
        """Return the energy of bending, L/EI times."""
        return float(np.sum(np.diff(self.angles) ** 2)) * len(self.angles) / 2


class _Rod:
    def __init__(
        self,
        span: float,
        hold: float,
        left: float,
        right: float,
        links: int,
        rest: Array | None,
        crown: float | None,
        clamped: bool,
    ) -> None:
        self.clamped = clamped
        self.rest = np.zeros(links - 1) if rest is None else np.diff(rest)
        self.n, self.ds, self.span, self.hold = links, 1.0 / links, span, hold
        weights = np.concatenate((np.full(links // 2, left), np.full(links - links // 2, right))) * self.ds
        if crown is not None:
            middle = np.abs((np.arange(links) + 0.5) / links - 0.5) < 1.0 / 6.0
            weights = weights * np.where(middle, 3.0 * crown, 1.5 * (1.0 - crown))
        # the weight of a link hangs at its middle: link j lifts all that comes after it, and half of its own
        after = np.concatenate((np.cumsum(weights[::-1])[::-1][1:], [0.0]))
        self.lift = self.ds * (after + weights / 2)

    def nodes(self, t: Array) -> tuple[Array, Array]:
        x = np.concatenate(([0.0], np.cumsum(np.cos(t)) * self.ds))
        y = np.concatenate(([0.0], np.cumsum(np.sin(t)) * self.ds))
        return x, y

    def _tie(self, t: Array) -> tuple[float, Array, Array]:
        """Return how far right of its foot a strip crosses the tie's height, with gradient and Hessian."""
        n, ds, h = self.n, self.ds, self.hold
        x, y = self.nodes(t)
        k = int(np.argmax(y[1:] >= h))
        left, cot, sine = h - y[k], 1.0 / np.tan(t[k]), np.sin(t[k])
        grad, hess = np.zeros(n), np.zeros((n, n))
        grad[:k] = -ds * np.sin(t[:k]) - ds * np.cos(t[:k]) * cot
        grad[k] = -left / sine**2
        hess[np.arange(k), np.arange(k)] = -ds * np.cos(t[:k]) + ds * np.sin(t[:k]) * cot
        hess[:k, k] = hess[k, :k] = ds * np.cos(t[:k]) / sine**2
        hess[k, k] = 2.0 * left * np.cos(t[k]) / sine**3
        return x[k] + left * cot, grad, hess

    def constraints(self, t: Array) -> tuple[Array, Array, list[Array]]:
        n, ds = self.n, self.ds
        x, y = self.nodes(t)
        values = [x[-1] - self.span, y[-1]]
        grads = [-ds * np.sin(t), ds * np.cos(t)]
        hessians = [np.diag(-ds * np.cos(t)), np.diag(-ds * np.sin(t))]
        if self.hold > 0:
            value, grad, hess = self._tie(t)
            mirrored = -t[::-1]
            other, grad_b, hess_b = self._tie(mirrored)
            values += [value, other]
            grads += [grad, -grad_b[::-1]]
            hessians += [hess, hess_b[::-1, ::-1]]
        return np.array(values), np.array(grads).reshape(-1, n), hessians

    def system(self, t: Array, multipliers: Array) -> tuple[Array, Array, Array, Array]:
        n, ds = self.n, self.ds
        bend = np.zeros(n)
        turn = (np.diff(t) - self.rest) / ds
        bend[:-1] -= turn
        bend[1:] += turn
        values, grads, hessians = self.constraints(t)
        gradient = bend + self.lift * np.cos(t) + grads.T @ multipliers
        hess = np.zeros((n, n))
        inner = np.arange(n - 1)
        hess[inner, inner] += 1 / ds
        hess[inner + 1, inner + 1] += 1 / ds
        hess[inner, inner + 1] -= 1 / ds
        hess[inner + 1, inner] -= 1 / ds
        hess[np.arange(n), np.arange(n)] -= self.lift * np.sin(t)
        if self.clamped:  # half a link lies between its end and the middle of its first link
            gradient[0] += 2.0 * (t[0] - np.pi / 2) / ds
            gradient[-1] += 2.0 * (t[-1] + np.pi / 2) / ds
            hess[0, 0] += 2.0 / ds
            hess[-1, -1] += 2.0 / ds
        for multiplier, each in zip(multipliers, hessians, strict=True):
            hess += multiplier * each
        return gradient, hess, values, grads

    def relaxed(self, t: Array, multipliers: Array) -> tuple[Array, Array, bool]:
        """Return the strip at rest, by Newton's method from near by."""
        for _ in range(60):
            gradient, hess, values, grads = self.system(t, multipliers)
            m = len(values)
            matrix = np.block([[hess, grads.T], [grads, np.zeros((m, m))]])
            step = np.linalg.solve(matrix, -np.concatenate((gradient, values)))
            scale = min(1.0, 0.3 / max(float(np.max(np.abs(step[: self.n]))), 1e-12))
            t, multipliers = t + scale * step[: self.n], multipliers + scale * step[self.n :]
            if float(np.max(np.abs(step[: self.n]))) < 1e-10:
                return t, multipliers, True
        return t, multipliers, False

    def stability(self, t: Array, multipliers: Array) -> float:
        _, hess, _, grads = self.system(t, multipliers)
        _, _, vt = np.linalg.svd(grads)
        free = vt[len(grads) :]
        return float(np.linalg.eigvalsh(free @ hess @ free.T)[0])


def bent(
    span: float,
    hold: float = 0.0,
    left: float = 0.0,
    right: float = 0.0,
    links: int = 160,
    start: Shape | None = None,
    rest: Array | None = None,
    crown: float | None = None,
    clamped: bool = False,
) -> Shape:
    """Return the shape of a strip of unit length bent up between two stops, tied upright at a height or not.

    The energy ½∫κ² ds + ∫w y ds is made stationary under the constraints by Newton's method; the reactions
    are its multipliers.

    Args:
        span: Between the feet, over the strip's length.
        hold: Height at which the strip is tied, over its length; 0 where its feet only stand against stops.
        left: Weight per length of the left half, w L³/EI.
        right: Of the right half.
        links: Links of the chain.
        start: A shape near by, to start from.
        rest: Angles of its links before it was bent, (links,); straight where none are given. [rad]
        crown: Share of the weight that hangs in the crown third; spread evenly where none is given.
        clamped: Whether its ends are held upright, rather than free to turn; then without a tie.

    Returns:
        The shape.

    Source: handbook-8.5
    """
    rod = _Rod(span, hold, left, right, links, rest, crown, clamped)
    count = 4 if hold > 0 else 2
    t, multipliers = np.linspace(1.9, -1.9, links), np.zeros(count)
    if start is not None:
        t = start.angles
        multipliers[: min(count, len(start.multipliers))] = start.multipliers[:count]
    t, multipliers, shape = rod.relaxed(t, multipliers)
    if not shape:
        raise ArithmeticError(
            f"no shape found for span {span:g}, tie {hold:g}, weight {left:g} and {right:g}"
        )
    x, y = rod.nodes(t)
    return Shape(t, x, y, multipliers, rod.stability(t, multipliers))


def sway_weight(
    shape: Shape,
    span: float,
    hold: float,
    most: float = 2000.0,
    links: int = 160,
    crown: float | None = None,
    clamped: bool = False,
) -> float:
    """Return the weight per length at which a bent strip sways away, by bisection along its symmetric path.
    [-]

    Args:
        shape: The strip without weight.
        span: Between the feet, over the strip's length.
        hold: Height of the tie, over the strip's length.
        most: Weight to stop at, w L³/EI.
        links: Links of the chain.
        crown: Share of the weight that hangs in the crown third; spread evenly where none is given.
        clamped: Whether its ends are held upright.

    Returns:
        Critical weight, spread over its length, w L³/EI.

    Source: handbook-8.5
    """
    low, step, now = 0.0, 16.0, shape
    while low < most:
        try:
            pushed = bent(span, hold, low + step, low + step, links, now, crown=crown, clamped=clamped)
        except (ArithmeticError, np.linalg.LinAlgError):
            pushed = None
        even = pushed is not None and float(np.max(np.abs(pushed.angles + pushed.angles[::-1]))) < _EVEN
        near = pushed is not None and float(np.max(np.abs(pushed.angles - now.angles))) < _NEAR
        if pushed is not None and even and near and pushed.stable > 0:
            low, now = low + step, pushed
        else:
            step /= 2
            if step < 0.1:
                return low
    return most
