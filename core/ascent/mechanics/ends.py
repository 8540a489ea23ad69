"""Guys and struts that hold an end post against a pull along the row."""

from __future__ import annotations

import math

from . import Number


def guy_forces(pull: Number, pull_height: float, guy_height: float, angle: float) -> tuple[Number, Number, Number]:
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


def strut_forces(pull: Number, pull_height: float, strut_height: float, foot: float) -> tuple[Number, Number, Number]:
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
