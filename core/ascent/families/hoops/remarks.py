"""Hoops: what fits and what does not, and the cautions of building it."""

from __future__ import annotations

from ... import tables
from ...path.geometry import Geometry
from ...path.loadpath import Remark
from ...plan.structure import Structure
from ...remarks import fits
from ...shapes import sprung
from ...site import Site
from .geometry import hold, hoop
from .options import KEY, HoopsOptions


def remarked(
    options: HoopsOptions, geometry: Geometry, structure: Structure, site: Site
) -> tuple[Remark, ...]:
    """Return what fits and what does not: a hoop that can be bent so, feet that hold, something to
    climb.
    """
    row = hoop(options)
    remarks = fits.of_ground(site.bed, options.length)
    if not bool(sprung.fits(options.arc, options.span, hold(options))):
        values = {
            "length": (options.arc, "length"),
            "span": (options.span, "length"),
            "hold": (hold(options), "length"),
        }
        remarks.append(
            Remark("hoop-impossible", "wrong", values, source="handbook-8.2", levers=("arc", "span"))
        )
    remarks += fits.of_stock(row, options.arc, ("arc",))
    remarks.append(
        Remark(
            "hoop-rise",
            "fine",
            {"rise": (geometry.top, "length")},
            source="handbook-parts-3.12",
            levers=("arc", "span"),
        )
    )
    if options.ridge == "none" or options.brace == "none":
        remarks.append(Remark("hoops-fall", "watch", source="handbook-parts-3.12", levers=("ridge", "brace")))
    if options.brace == "neighbour":
        remarks.append(Remark("neighbour-stands", "watch", source="handbook-parts-3.12", levers=("brace",)))
    if options.hoop_of == "pipe" and row.material == "tube_steel":
        remarks.append(Remark("tube-bender", "watch", source="handbook-9.6", levers=("pipe",)))
    strain = _strain(options)
    if strain > tables.constant("pvc_gentle"):
        remarks.append(
            Remark(
                "pipe-strained",
                "watch",
                {"radius": (row.a / 2 / strain, "length")},
                {"pipe": row.name},
                "handbook-9.6",
                ("pipe", "arc"),
            )
        )
    if options.hoop_of == "pipe" and row.material == "pvc":
        remarks.append(Remark("pipe-sun", "watch", source="handbook-9.6", levers=("pipe", "hoop_of")))
    if options.hoop_of == "ladder-mesh" and site.bed.raised_by > 0.05:
        remarks.append(
            Remark(
                "hoops-loose",
                "watch",
                {"fill": (site.bed.raised_by, "length")},
                source="handbook-5.3",
                levers=("push_in", "hoop_of"),
            )
        )
    for planting in structure.plantings:
        crop_ = tables.crops()[planting.crop]
        if (
            options.hoop_of == "pipe"
            and options.net == "none"
            and crop_.training in ("GUIDE", "FRONT", "TWINE")
        ):
            remarks.append(
                Remark(
                    "pipe-slick",
                    "watch",
                    words={"crop": crop_.name},
                    source="handbook-parts-3.12",
                    levers=("net",),
                )
            )
        if crop_.training == "LAY":
            remarks.append(Remark("laid-on", "fine", words={"crop": crop_.name}, source="crops-4"))
        remarks += [
            *fits.of_suit(planting, KEY),
            *fits.of_row(planting, options.length),
            *fits.of_tying(planting),
        ]
        remarks += fits.of_height(planting, geometry.top, ("arc", "span"))
    return tuple(remarks)


def cautions(geometry: Geometry) -> tuple[str, ...]:
    """Return the cautions of setting hoops."""
    cautions = ["services", "hoop-spring"]
    if geometry.by_role("post"):
        cautions += ["driving", "caps"]
    return (*cautions, "judgement")


def _strain(options: HoopsOptions) -> float:
    """Return the strain of a plastic pipe where it is bent most sharply, nothing for what is not plastic."""
    row = hoop(options)
    if options.hoop_of == "ladder-mesh" or row.material != "pvc":
        return 0.0
    return row.a / 2 / float(sprung.figures(options.arc, options.span, hold(options), 1.0).radius)
