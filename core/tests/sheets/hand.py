"""A calculator for the sheets: each formula once more, with its constants typed anew and its integrals and
roots left to SciPy.
"""

from __future__ import annotations

import math
from functools import cache

import numpy as np
from ascent import tables
from ascent.families import family_of
from ascent.loads import cases as case_sets
from ascent.plan.structure import Planting, Structure
from scipy.integrate import quad
from scipy.optimize import brentq

from tests.support import NearTestCase, site

G = 9.81
_DRAG = (
    (0, 0),
    (0.05, 0.10),
    (0.1, 0.20),
    (0.2, 0.35),
    (0.3, 0.50),
    (0.5, 0.81),
    (0.7, 1.12),
    (0.85, 1.26),
    (1.0, 1.40),
)  # asce-7


def mesh(wire: float, along: float, up: float) -> float:
    """Return the solid share of a mesh, all lengths in one unit."""
    return wire / along + wire / up - wire * wire / along / up


def drag(solid: float) -> float:
    """Return the drag coefficient of a porous screen."""
    return float(np.interp(solid, *zip(*_DRAG, strict=True)))


def streaming(v: float) -> float:
    """Return what is left of leaf drag (Vogel 1989: speed to the power −0.4 from 8 m/s)."""
    return max(0.5, (max(v, 8.0) / 8.0) ** -0.4)


def gust_share(low: float, high: float) -> tuple[float, float]:
    """Return the mean of (1 + 7 Iv) vm² of EN 1991-1-4 between two heights over that at 1.5 m, z0 = 0.05 m,
    and its centre [m].
    """

    def q(z: float) -> float:
        log = math.log(z / 0.05)
        return log * log + 7 * log if z > 0.05 else 0.0

    whole, first = (
        quad(lambda z, n=n: q(z) * z**n, low, high, points=[0.05] if low < 0.05 < high else None)[0]
        for n in (0, 1)
    )
    return whole / (high - low) / q(1.5), first / whole


class Band:
    """Wind on a band of a face at a gust: mean pressure [Pa], force on a metre of row [N/m], centre [m]."""

    def __init__(
        self, v: float, low: float, high: float, solid: float, leaf: float = 0.0, factor: float = 1.0
    ) -> None:
        share, self.centre = gust_share(low, high)
        bare = drag(solid)
        both = drag(1 - (1 - solid) * (1 - leaf))
        self.pressure = factor * share * 0.6125 * v * v * (bare + (both - bare) * streaming(v))
        self.force = self.pressure * (high - low)


def centre(*bands: Band) -> float:
    """Return the height of the resultant of several bands. [m]"""
    return sum(b.force * b.centre for b in bands) / sum(b.force for b in bands)


def clay(cu: float, b: float, depth: float, e: float, dug: float = 0.15) -> float:
    """Return the ultimate lateral load of a short free post in clay (Broms 1964a), by halving instead of his
    quadratic. [N]
    """
    top = max(1.5 * b, dug)

    def rest(f: float) -> float:
        return 9 * cu * b * f * (e + top + f / 2) - 2.25 * b * (depth - top - f) ** 2 * cu

    return 9 * cu * b * brentq(rest, 0.0, depth - top)


def sand(phi: float, gamma: float, b: float, depth: float, e: float, skipped: float = 0.15) -> float:
    """Return the same in sand (Broms 1964b): moments about the toe of 3 Kp γ z b below what is skipped.
    [N]
    """
    kp = (1 + math.sin(math.radians(phi))) / (1 - math.sin(math.radians(phi)))
    return quad(lambda z: 3 * kp * gamma * z * b * (depth - z), skipped, depth)[0] / (e + depth)


def loose_top(b: float, pivot: float, e: float, thick: float = 0.15) -> float:
    """Return what dug-over ground (29°, 13 kN/m³) adds at the top. [N]"""
    kp = (1 + math.sin(math.radians(29))) / (1 - math.sin(math.radians(29)))
    return quad(lambda z: 3 * kp * 13e3 * z * b * (pivot - z), 0.0, thick)[0] / (e + pivot)


def in_loam(b: float, depth: float, e: float, plate: float = 0.0) -> float:
    """Return the ultimate lateral load in firm loam (cu 30 kPa) whose top 0.15 m is dug over, with an anchor
    plate or none. [N]
    """
    found = clay(30e3, b, depth, e) + loose_top(b, 0.7 * depth, e, min(0.15, 0.7 * depth))
    return found + 4 * 30e3 * plate * (0.8 * depth - depth / 2) / (e + 0.8 * depth) if plate else found


def knotted(break_: float, days: float, end: float, season: float = 20.0) -> tuple[float, float]:
    """Return what knotted twine may carry and is expected to, after days of a season of weeks at whose end a
    share is left. [N]
    """
    left = break_ * (1 + (end - 1) * min(days / (7 * season), 1.0))
    return 0.5 * left / 2.0, 0.6 * left


class Sheet(NearTestCase):
    """One structure at one gust in one week, in moist soil: every check of every link, against the statics of
    its test.

    The test's `rows` give demand, allowable and median of each check, and the demand that is expected where
    that is less; none may be missing and none may be left over.
    """

    family = ""
    crop, count, spacing, side, training, planted = "tom-slicer", 8, 0.45, "left", "pruned", "05-04"
    options: dict[str, object] = {}
    bed: dict[str, object] = {}
    gust = 20.0
    week = 18

    @classmethod
    @cache
    def stand(cls):
        """Return the family's structure under the loads of the one case."""
        planting = Planting(
            key="p1",
            crop=cls.crop,
            count=cls.count,
            spacing=cls.spacing,
            side=cls.side,
            training=cls.training,
            planted=cls.planted,
        )
        return cls.of(planting)

    @classmethod
    def of(cls, *plantings: Planting):
        """Return the family's structure with other plantings under the loads of the one case."""
        where = site(**cls.bed)
        family = family_of(cls.family)
        options = family.options.model_validate(cls.options)
        structure = Structure(
            key="x", name="x", family=cls.family, options=options.model_dump(), plantings=plantings
        )
        geometry = family.geometry(options, plantings, where)
        return family.loaded(options, geometry, structure, where, case_sets.moist_gusts(np.array([cls.gust])))

    @classmethod
    @cache
    def found(cls):
        """Return demand, allowable, median and expected demand of each check."""
        return {
            (link.key, check.key): tuple(
                cls.one(v) for v in (check.demand, check.allowable, check.median, check.expected)
            )
            for link in cls.stand().path()
            for check in link.checks
        }

    @classmethod
    def one(cls, value):
        """Return a number of the case, from an array that broadcasts to (S, W, G)."""
        if value is None:
            return None
        array = np.asarray(value, dtype=float)
        array = array.reshape((1,) * (3 - array.ndim) + array.shape)
        return float(array[0, min(cls.week, array.shape[1] - 1), 0])

    @classmethod
    def course(cls):
        """Return the planting's course: what it weighs and covers in the week."""
        growth = cls.stand().growths[0]
        names = ("shoot_kg", "fruit_kg", "high_kg", "grown", "cover", "top")
        return {name: float(getattr(growth, name)[cls.week]) for name in names}

    @classmethod
    def capped(cls, plants, face):
        """Return what several usual plants weigh on a face, shoot and fruit each no more than light feeds on
        it. [N]
        """
        growth = cls.stand().growths[0]
        shoot, fruit = (
            min(plants * float(each[cls.week]), face * float(most[cls.week]))
            for each, most in (
                (growth.shoot_kg, growth.face_shoot_kg_m2),
                (growth.fruit_kg, growth.face_fruit_kg_m2),
            )
        )
        return (shoot + fruit) * G

    def assertSheet(self, rows: dict[tuple[str, str], tuple[float, ...]], share: float = 0.01) -> None:  # noqa: N802 - unittest's own style
        """Fail when a check is missing, is too many, or has another demand, allowable, median or expected
        demand.
        """
        found = self.found()
        self.assertEqual(sorted(found), sorted(rows))
        for key, wanted in rows.items():
            for name, value, expected in zip(
                ("demand", "allowed", "median", "expected"), found[key], wanted, strict=False
            ):
                now = found[key][0] if value is None else value  # expected as it is designed for
                with self.subTest(check=" · ".join(key), of=name):
                    if expected is not None:
                        self.assertLessEqual(
                            abs(now - expected),
                            share * abs(expected) + 1e-6,
                            f"{now:.6g} against {expected:.6g}",
                        )


def item(table: str, key: str):
    """Return a row of a table."""
    return tables.ITEM_TABLES[table]()[key]


def rigid_in_clay(modulus: float, depth: float, e: float) -> tuple[float, float]:
    """Return movement at the ground and turn of a stiff post in springs of one stiffness, per force at a
    height: statics of a bar on springs. [m/N], [rad/N]
    """
    # springs N/m² along the depth: y = a + b z; ∫k y dz = H, ∫k y z dz = −H e (z down, moments about the
    # ground)
    k = np.array([[depth, depth**2 / 2], [depth**2 / 2, depth**3 / 3]]) * modulus
    a, b = np.linalg.solve(k, [1.0, -e])
    return float(a), float(-b)


def belly(load: float, span: float, bending: float, axial: float) -> tuple[float, float]:
    """Return belly and pull of a wire that bends and hangs at once: w = 384 EI f/(5 L⁴) + 8 T f/L², T = EA
    8/3 (f/L)². [m], [N]
    """

    def pull(f: float) -> float:
        return axial * 8 / 3 * (f / span) ** 2

    f = brentq(lambda f: 384 * bending * f / 5 / span**4 + 8 * pull(f) * f / span**2 - load, 0.0, span)
    return f, pull(f)


def left_at(load: float, span: float, shorter: float, beam: float = 0.0) -> float:
    """Return the pull of a line whose bay has become so much shorter: its belly is √(3/8 L ΔL) and hangs what
    bending does not carry. [N]
    """
    f = math.sqrt(3 / 8 * span * shorter)
    return max(load - beam * f, 0.0) * span**2 / 8 / f


def tee(side: float, thick: float) -> dict[str, float]:
    """Return what a tee of two equal legs bears, by strips: first and full yield both ways, the full no more
    than 1.6 × the first, and I. [m³], [m⁴]
    """
    z = np.linspace(0.0, side, 40001)
    mid, dz = (z[1:] + z[:-1]) / 2, z[1] - z[0]
    wide = np.where(mid < thick, side, thick)
    area = float(np.sum(wide) * dz)
    axis = float(np.sum(wide * mid) * dz) / area
    inertia = float(np.sum(wide * (mid - axis) ** 2) * dz)
    half = float(np.interp(area / 2, np.cumsum(wide) * dz, mid))
    stem, flange = side - thick, thick * side**3 / 12
    other = flange + stem * thick**3 / 12
    first, first_other = inertia / (side - axis), other / (side / 2)
    return {
        "S": first,
        "Z": min(float(np.sum(wide * np.abs(mid - half)) * dz), 1.6 * first),
        "I": inertia,
        "I_other": other,
        "Z_other": min(thick * side**2 / 4 + stem * thick**2 / 4, 1.6 * first_other),
    }


def tight(load: float, span: float, pretension: float, axial: float) -> float:
    """Return the pull of a shallow wire drawn tight: T − T0 = EA (w L)²/(24 T²). [N]"""
    return brentq(
        lambda t: t - pretension - axial * (load * span) ** 2 / 24 / t**2, max(pretension, 1e-6), 1e6
    )


def sliding(load: float, span: float, pretension: float, axial: float, end: float, bays: int) -> float:
    """Return the pull of an elastic wire that slides over its posts between two springy ends. [N]

    The arc of its parabola, which its mean pull has stretched, is as long as it was cut, which was so that it
    was drawn tight over the whole span; its ends have come in.
    """
    cut = span / (1 + pretension / axial)

    def error(t: float) -> float:
        chord = span - 2 * (t - pretension) / end / bays
        u = load * span / 2 / t
        arc = chord / 2 * (math.sqrt(1 + u * u) + math.asinh(u) / u)
        return arc - chord * t / axial * (1 + u * u / 3) - cut

    return brentq(error, load * span / 8, 0.1 * axial)


class End:
    """An end post whose foot stands in springs of soil and which is held at a height: a beam on two
    springs.
    """

    def __init__(
        self,
        ei: float,
        depth: float,
        hold: float,
        prop: float,
        modulus: float = 2.01e6,
        h_brace: bool = False,
    ) -> None:
        self.ei, self.hold, self.prop, self.h_brace = ei, hold, prop, h_brace
        self.foot, _ = rigid_in_clay(modulus, depth, 0.0)

    def stiffness(self, z: float) -> float:
        """Return what a pull at a height must be to move it by a metre there. [N/m]"""
        hold, past = self.hold, z - self.hold
        bent = past**2 * z / 3 / self.ei if past > 0 else z**2 * past**2 / 3 / self.ei / hold
        on_foot = 1.0 if self.h_brace else (1 - z / hold) ** 2
        return 1 / (self.foot * on_foot + (z / hold) ** 2 / self.prop + bent)


def buried(
    mass: float, top: float, height: float, wide: float, long: float, gamma: float
) -> tuple[float, float]:
    """Return what rammed earth over stones holds upward, breaking out at 20°, slice by slice, and along, at
    30°. [N]
    """
    out = 2 * math.tan(math.radians(20))
    up = mass * G + gamma * quad(lambda z: (wide + out * z) * (long + out * z), 0, top)[0]
    return up, (3 - 1 / 3) * gamma * wide * ((top + height) ** 2 - top**2) / 2


def breaks(d: float, least: float, mean: float) -> tuple[float, float]:
    """Return what a wire of a diameter [mm] may carry, half its least break [MPa], and where it is expected
    to. [N]
    """
    return math.pi / 4 * d * d * least / 2, math.pi / 4 * d * d * mean


def pier(cu: float, b: float, depth: float, e: float) -> float:
    """Return the ultimate lateral load of a wide rigid pier: pressures (3 + z/2b) cu ≤ 9 cu above and below
    the depth where forces and moments balance.
    """

    def p(z: float) -> float:
        return min(3 + z / 2 / b, 9) * cu * b

    def held(zr: float) -> float:
        return quad(p, 0, zr)[0] - quad(p, zr, depth)[0]

    def rest(zr: float) -> float:
        return held(zr) * e + quad(lambda z: p(z) * z, 0, zr)[0] - quad(lambda z: p(z) * z, zr, depth)[0]

    return held(brentq(rest, 0.3 * depth, depth))
