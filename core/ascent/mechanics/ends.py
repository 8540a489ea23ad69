"""Guys and struts that hold an end post against a pull along the row."""

from __future__ import annotations

import math

from . import Number


def guy_forces(
    pull: Number, pull_height: float, guy_height: float, angle: float
) -> tuple[Number, Number, Number]:
    """Return the forces of a guyed vertical post, hinged at the ground.

    Args:
        pull: Horizontal pull on the post. [N]
        pull_height: Height of the pull. [m]
        guy_height: Height of the guy on the post. [m]
        angle: Angle of the guy from the ground. [rad]

    Returns:
        Guy tension, push of the post on the ground, and uplift at the anchor. [N]

    Source: handbook-7.1
    """
    held = pull * pull_height / guy_height
    return held / math.cos(angle), held * math.tan(angle), held * math.tan(angle)


def strut_forces(
    pull: Number, pull_height: float, strut_height: float, foot: float
) -> tuple[Number, Number, Number]:
    """Return the forces of a diagonal strut on the row side of an end post.

    Args:
        pull: Horizontal pull on the post. [N]
        pull_height: Height of the pull. [m]
        strut_height: Height of the strut on the post. [m]
        foot: Distance of the strut's foot from the post. [m]

    Returns:
        Strut compression, uplift of the post, and outward push at the post's foot. [N]

    Source: handbook-7.4
    """
    slope = math.atan2(strut_height, foot)
    compression = pull * pull_height / (strut_height * math.cos(slope))
    return compression, compression * math.sin(slope), pull * (pull_height / strut_height - 1.0)


def leaning_forces(pull: Number, weight: Number, lean: float, angle: float) -> tuple[Number, Number, Number]:
    """Return the forces of an end post that leans away from the row with a guy from its top.

    T = (H − V cot ψ)/(cos β + sin β cot ψ), N = (T sin β + V)/sin ψ.

    Args:
        pull: Horizontal pull at the top. [N]
        weight: Weight at the top. [N]
        lean: Angle of the post from the ground, its top away from the row. [rad]
        angle: Angle of the guy from the ground. [rad]

    Returns:
        Guy tension, push along the post, and push of its foot toward the row. [N]

    Source: handbook-7.2
    """
    cot = 1.0 / math.tan(lean)
    tension = (pull - weight * cot) / (math.cos(angle) + math.sin(angle) * cot)
    push = (tension * math.sin(angle) + weight) / math.sin(lean)
    return tension, push, push * math.cos(lean)


def brace_forces(
    pull: Number, pull_height: float, rail_height: float, run: float
) -> tuple[Number, Number, Number]:
    """Return the forces of an H-brace: a rail to a second post, a wire from there to the end post's foot.

    Args:
        pull: Horizontal pull on the end post. [N]
        pull_height: Height of the pull. [m]
        rail_height: Height of the rail. [m]
        run: Distance between the two posts. [m]

    Returns:
        Push of the rail, tension of the diagonal wire, and uplift of the end post. [N]

    Source: handbook-7.3
    """
    rail = pull * pull_height / rail_height
    return rail, rail / math.cos(math.atan2(rail_height, run)), pull * pull_height / run
