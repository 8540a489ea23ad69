"""What fits and what does not, apart from strength: hand and fruit through the mesh, reach, vine, posts."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import Literal

from .. import tables
from ..checks.bending import moments
from ..checks.legs import smooth
from ..loads.season import PlantingCourse
from ..path.geometry import Geometry, depth_of, stock_in
from ..path.loadpath import Remark
from ..plan.bed import BareBed
from ..plan.structure import Planting
from ..shapes.wear import after
from ..tables import rows
from ..words.texts import template

_PICKING = 14.0  # of picking that make a planting worth while [d], judgement
_SHORT = 0.05  # of a post that will do [m]
_HAND_FREE = 0.125
_HAND_TIGHT = 0.100
_DEPTHS = ("depth", "end_depth", "in_soil", "push_in", "foot_depth", "stake_depth", "pole_depth", "buried")
_CLOSER = 1.5  # times as many plants that are kept narrow share a face; guided vines are not, common practice


def opening(mesh: rows.Mesh) -> float:
    """Return the clear opening of a mesh, its shorter side. [m]

    Source: handbook-parts-4.4
    """
    return min(mesh.along, mesh.up) - mesh.wire


def of_planting(planting: Planting, mesh: rows.Mesh, mesh_top: float, length: float) -> list[Remark]:
    """Return remarks on a crop and the mesh it climbs. [m]

    Source: handbook-parts-4.4
    """
    crop = tables.crops()[planting.crop]
    remarks = [
        *_through(crop, mesh),
        *_grip(crop, mesh),
        *of_height(planting, mesh_top, ("mesh_height", "bottom_gap")),
    ]
    remarks += [*of_suit(planting, "mesh-fence"), *of_row(planting, length)]
    return [*remarks, *of_face(planting, length * mesh_top)]


def of_face(planting: Planting, area: float) -> list[Remark]:
    """Return a remark where more plants share a face than light feeds. [m²]

    Source: crops-3
    """
    crop = tables.crops()[planting.crop]
    if not crop.face_limit_m2:
        return []
    room = area / crop.face_limit_m2
    if planting.count <= (1.0 if planting.training == "free" or crop.training == "GUIDE" else _CLOSER) * room:
        return []
    values = {"count": (float(planting.count), "count"), "room": (math.floor(room), "count")}
    return [
        Remark("crowded-face", "watch", values, {"crop": crop.name}, "crops-3", (planting.path("count"),))
    ]


def of_through(planting: Planting, mesh: rows.Mesh) -> list[Remark]:
    """Return remarks on hand, fruit and tendril at a mesh.

    Source: handbook-parts-4.4
    """
    crop = tables.crops()[planting.crop]
    return [*_through(crop, mesh), *_grip(crop, mesh)]


def of_suit(planting: Planting, family: str) -> list[Remark]:
    """Return a remark where a crop is seldom grown on this kind of support.

    Source: crops-2
    """
    crop = tables.crops()[planting.crop]
    if tables.suits()[planting.crop].scores[family] > 1:
        return []
    return [
        Remark(
            "crop-unsuited",
            "watch",
            words={"crop": crop.name, "family": template(f"family.{family}.name")},
            source="crops-2",
        )
    ]


def of_tying(planting: Planting) -> list[Remark]:
    """Return a remark where a crop cannot hold on by itself.

    Source: crops-4
    """
    crop = tables.crops()[planting.crop]
    if crop.training not in ("TIE", "STAKE", "STALK"):
        return []
    return [Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4")]


def of_stock(row: rows.Post, needed: float, levers: tuple[str, ...]) -> list[Remark]:
    """Return a remark where a pole is wanted longer than it comes. [m]

    Source: handbook-parts-2.1
    """
    longest = max(row.lengths_m)
    if longest >= needed - 0.05:
        return []
    values = {"long": (longest, "length"), "needed": (needed, "length")}
    return [Remark("stake-short", "wrong", values, {"stake": row.name}, "handbook-parts-2.1", levers)]


def of_lashing(row: rows.Post, joint: str) -> list[Remark]:
    """Return a remark where a lashing lies on a pole that it slides along, or a coupler on one it does not
    fit.

    Source: handbook-13
    """
    words = {"pole": row.name}
    if joint == "coupled":
        fitting = tables.materials()[row.material].stuff == "metal" and row.shape in ("tube", "round")
        return (
            []
            if fitting
            else [
                Remark(
                    "coupler-misfit", "wrong", words=words, source="handbook-parts-2.7", levers=("crossing",)
                )
            ]
        )
    if joint == "notched" or not smooth(row):
        return []
    return [
        Remark(
            "lashing-slides",
            "watch",
            {"slip": (tables.constant("cane_slip"), "force")},
            words,
            "handbook-13",
            ("crossing",),
        )
    ]


def of_row(planting: Planting, length: float) -> list[Remark]:
    """Return a remark where more plants stand in a row than it is long for. [m]

    Source: crops-3
    """
    lines = 2 if planting.side == "both" else 1
    row = (math.ceil(planting.count / lines) - 1) * planting.spacing
    if row + 2 * abs(planting.along) <= length + 1e-6:
        return []
    values = {"count": (float(planting.count), "count"), "row": (row, "length"), "length": (length, "length")}
    words = {"crop": tables.crops()[planting.crop].name}
    return [Remark("crowded-row", "wrong", values, words, "crops-3", ("length", planting.path("count")))]


def of_low(planting: Planting, top: float, levers: tuple[str, ...]) -> list[Remark]:
    """Return a remark where a support ends so low that most of its crop has nothing to hold to. [m]

    Source: handbook-parts-4.3
    """
    crop = tables.crops()[planting.crop]
    if top >= tables.constant("support_share") * crop.support_height_m:
        return []
    values = {"top": (top, "length"), "support": (crop.support_height_m, "length")}
    return [Remark("support-low", "wrong", values, {"crop": crop.name}, "handbook-parts-4.3", levers)]


def of_height(planting: Planting, top: float, levers: tuple[str, ...]) -> list[Remark]:
    """Return remarks on how high a crop grows, how high its support is, and what a hand reaches. [m]

    Source: handbook-parts-4.3
    """
    crop = tables.crops()[planting.crop]
    values = {
        "vine": (crop.height_m, "length"),
        "top": (top, "length"),
        "over": (crop.height_m - top, "length"),
        "reach": (tables.constant("reach"), "length"),
    }
    remarks = of_low(planting, top, levers)
    if crop.height_m > top + tables.constant("overtop_free"):
        key = "vine-topped" if planting.training == "pruned" else "vine-overtops"
        remarks.append(Remark(key, "watch", values, {"crop": crop.name}, "handbook-parts-4.3", levers[:1]))
    if top > tables.constant("reach"):
        remarks.append(Remark("out-of-reach", "watch", values, source="handbook-parts-4.1", levers=levers))
    return remarks


def of_ground(bed: BareBed, length: float, levers: tuple[str, ...] = ("length",)) -> list[Remark]:
    """Return a remark where a structure is longer than its bed. [m]

    Source: handbook-parts-3.0
    """
    if length <= bed.length + 1e-6:
        return []
    values = {"length": (length, "length"), "bed": (bed.length, "length")}
    return [Remark("beyond-bed", "wrong", values, source="handbook-parts-3.0", levers=levers)]


def of_pot(bed: BareBed, geometry: Geometry, options: Iterable[str]) -> list[Remark]:
    """Return a remark where anything of a structure goes through the floor of its container.

    Args:
        bed: What it stands in.
        geometry: It laid out.
        options: Names of its options, of which those that say how deep something goes are its levers.

    Source: handbook-parts-3.0
    """
    depth = max(map(depth_of, geometry.members), default=0.0)
    if bed.kind != "container" or depth <= bed.raised_by:
        return []
    values = {"depth": (depth, "length"), "fill": (bed.raised_by, "length")}
    levers = tuple(name for name in options if name in _DEPTHS)
    return [Remark("past-pot", "wrong", values, source="handbook-parts-3.0", levers=levers)]


def of_season(planting: Planting, course: PlantingCourse) -> list[Remark]:
    """Return a remark where the cold ends a crop before its first picking, or within two weeks of it.

    Args:
        planting: The planting.
        course: When it begins, is first picked and is gone.

    Source: crops-a
    """
    crop = tables.crops()[planting.crop]
    picking = course.end - course.first
    if course.ends not in ("cold", "frost") or picking >= (0 if crop.one_pick else _PICKING):
        return []
    values = {
        "days": (float(course.end - course.start), "count"),
        "first": (float(course.first - course.start), "count"),
    }
    level: Literal["wrong", "watch"] = "wrong" if picking <= 0 else "watch"
    return [Remark("season-short", level, values, {"crop": crop.name}, "crops-a")]


def of_age(post: rows.Post, seasons: int, levers: tuple[str, ...]) -> list[Remark]:
    """Return a remark on a post or pole that has stood: what is left of it, or that its life is over.

    Source: handbook-3.4
    """
    if not seasons:
        return []
    values = {
        "seasons": (seasons, "count"),
        "life": (post.life_wet, "count"),
        "left": (after(post, seasons).sound, "ratio"),
    }
    key: Literal["post-old", "post-over"] = "post-over" if seasons >= post.life_wet else "post-old"
    return [
        Remark(key, "watch" if key == "post-over" else "fine", values, source="handbook-3.4", levers=levers)
    ]


def of_joints(geometry: Geometry) -> list[Remark]:
    """Return remarks where a piece is longer than it is sold: lapped over a support, or a strut that must not
    be joined.

    Source: handbook-parts-3.5
    """
    remarks: dict[tuple[str, str], Remark] = {}
    for member in geometry.members:
        tall = (
            math.dist(member.points[0], member.points[-1])
            if (member.role, member.table) == ("post", "posts")
            else 0.0
        )
        if tall > member.buy_length + _SHORT and ("post", member.item) not in remarks:
            values = {"long": (member.buy_length, "length"), "needed": (tall, "length")}
            remarks["post", member.item] = Remark(
                "stake-short",
                "wrong",
                values,
                {"stake": tables.posts()[member.item].name},
                "handbook-parts-2.1",
            )
        if member.table != "posts" or member.role not in ("rail", "strut", "arm"):
            continue
        row = tables.posts()[member.item]
        longest = max(row.lengths_m)
        joints = stock_in(member.buy_length, longest, tables.constant("joint_lap")) - 1
        if joints and (member.role, row.key) not in remarks:
            values = {
                "needed": (member.buy_length, "length"),
                "long": (longest, "length"),
                "joints": (joints, "count"),
            }
            remarks[member.role, row.key] = (
                Remark("strut-joined", "wrong", values, source="handbook-parts-3.5")
                if member.role == "strut"
                else Remark(
                    "joined",
                    "fine",
                    values,
                    {"piece": "rail" if member.role == "rail" else "bar"},
                    "handbook-parts-3.5",
                )
            )
    return list(remarks.values())


def of_setting(setting: str) -> list[Remark]:
    """Return a remark on how long concrete must set.

    Source: handbook-parts-2.8
    """
    return [Remark("concrete-waits", "fine", source="handbook-parts-2.8")] if setting == "concrete" else []


def of_guys(bed: BareBed, length: float, reach: float) -> list[Remark]:
    """Return a remark where guys end past the bed. [m]

    Source: handbook-7.6
    """
    past = reach - (bed.length - length) / 2
    return (
        [Remark("guys-reach", "watch", {"past": (past, "length")}, source="handbook-7.6", levers=("ends",))]
        if past > 0.05
        else []
    )


def _through(crop: rows.Crop, mesh: rows.Mesh) -> list[Remark]:
    clear = opening(mesh)
    values = {
        "clear": (clear, "length"),
        "low": (crop.fruit_min or 0.0, "length"),
        "high": (crop.fruit_max or 0.0, "length"),
    }
    words = {"crop": crop.name, "mesh": mesh.name}
    remarks = []
    if clear < _HAND_TIGHT:
        remarks.append(Remark("hand-no", "watch", values, words, "crops-5.6", ("mesh",)))
    elif clear < _HAND_FREE:
        remarks.append(Remark("hand-tight", "watch", values, words, "crops-5.6", ("mesh",)))
    else:
        remarks.append(Remark("hand-free", "fine", values, words, "crops-5.6"))
    if crop.fruit_max and crop.fruit_min and crop.fruit_kg > 0.02:
        if clear >= 1.3 * crop.fruit_max:
            remarks.append(Remark("fruit-free", "fine", values, words, "crops-5.6"))
        elif clear > 0.5 * crop.fruit_min:
            remarks.append(Remark("fruit-trapped", "watch", values, words, "crops-5.6", ("mesh",)))
        else:
            remarks.append(Remark("fruit-outside", "fine", values, words, "crops-5.6"))
    return remarks


def _grip(crop: rows.Crop, mesh: rows.Mesh) -> list[Remark]:
    values = {"wire": (mesh.wire, "wire"), "limit": (crop.strand_max or 0.0, "wire")}
    if crop.strand_max is None:
        return (
            []
            if crop.training != "TIE"
            else [Remark("needs-tying", "fine", words={"crop": crop.name}, source="crops-4")]
        )
    if mesh.wire > crop.strand_max:
        return [Remark("strand-thick", "watch", values, {"crop": crop.name}, crop.source, ("mesh",))]
    return [Remark("strand-grips", "fine", values, {"crop": crop.name}, crop.source)]


def of_fence(
    mesh_key: str,
    height: float,
    gap: float,
    top: str,
    ends: str,
    tie_key: str,
    post: rows.Post,
    exposed: float,
    leaned_on: bool,
) -> list[Remark]:
    """Return remarks on mesh, posts and ties of a fence. [m]

    Source: handbook-12
    """
    mesh, tie = tables.meshes()[mesh_key], tables.ties()[tie_key]
    values = {
        "top": (gap + height, "length"),
        "exposed": (exposed, "length"),
        "over": (gap + height - exposed, "length"),
    }
    remarks = []
    if gap + height > exposed + tables.constant("flap_margin"):
        remarks.append(
            Remark(
                "mesh-flaps",
                "wrong",
                values,
                {"post": post.name},
                "handbook-12",
                ("mesh_height", "post", "depth"),
            )
        )
    if height > max(mesh.heights_m) + 0.011:
        stock = {"height": (height, "length"), "stock": (max(mesh.heights_m), "length")}
        remarks.append(
            Remark("two-strips", "watch", stock, {"mesh": mesh.name}, mesh.source, ("mesh_height",))
        )
    if mesh.kind == "net" and top == "none":
        remarks.append(
            Remark("net-unhung", "wrong", words={"mesh": mesh.name}, source="handbook-12", levers=("top",))
        )
    if mesh.kind in ("roll", "net") and ends == "plain":
        remarks.append(
            Remark(
                "roll-unbraced",
                "watch",
                words={"mesh": mesh.name},
                source="handbook-parts-3.0",
                levers=("ends",),
            )
        )
    if tie.fits == "tee" and post.shape != "tee":
        remarks.append(
            Remark(
                "clip-misfit",
                "wrong",
                words={"tie": tie.name, "post": post.name},
                source=tie.source,
                levers=("tie",),
            )
        )
    if tie.fits == "timber" and tables.materials()[post.material].stuff != "wood":
        remarks.append(
            Remark(
                "clip-misfit",
                "wrong",
                words={"tie": tie.name, "post": post.name},
                source=tie.source,
                levers=("tie",),
            )
        )
    if not leaned_on:
        use = (
            tables.constant("person_pull")
            * min(tables.constant("hand_height"), exposed)
            / moments(post).allowable
        )
        if use > 1.0:
            pull = {"pull": (tables.constant("person_pull"), "force"), "use": (use, "ratio")}
            remarks.append(
                Remark("not-to-lean-on", "watch", pull, source="handbook-0.4", levers=("leaned_on", "post"))
            )
    return remarks
