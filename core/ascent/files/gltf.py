"""A structure in the round as binary glTF: one node a member, in metres, y up."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from pygltflib import (
    ARRAY_BUFFER,
    ELEMENT_ARRAY_BUFFER,
    FLOAT,
    GLTF2,
    SCALAR,
    UNSIGNED_INT,
    VEC3,
    Accessor,
    Asset,
    Attributes,
    Buffer,
    BufferView,
    Material,
    Mesh,
    Node,
    PbrMetallicRoughness,
    Primitive,
    Scene,
)

from ..drawing.solid import Bar, Solid
from ..mechanics import Array
from ..path.geometry import Point
from .svg import COLOURS

_LINES, _TRIANGLES = 1, 4
_SIDES = 10  # of a round bar
_STUFFS = {"wood": "wood", "cane": "cane", "metal": "metal", "soil": "soil", "leaf": "leaf", "twine": "cane"}


def solid_gltf(solid: Solid, name: str) -> bytes:
    """Return a structure in three dimensions as a GLB file.

    Args:
        solid: Its bars, strands and plants. [m]
        name: Of the scene.
    """
    return _Scene(name).of(solid)


class _Scene:
    def __init__(self, name: str) -> None:
        self.gltf = GLTF2(asset=Asset(version="2.0", generator="Ascent"), scene=0)
        self.gltf.scenes = [Scene(name=name, nodes=[])]
        self.blob = bytearray()
        self._materials: dict[str, int] = {}

    def of(self, solid: Solid) -> bytes:
        for bar in solid.bars:
            self._mesh(bar.member, bar.stuff, *_tube(bar))
        for strands in solid.strands:
            self._strands(strands.member, strands.stuff, strands.lines)
        for number, climber in enumerate(solid.climbers, start=1):
            self._strands(f"plant-{number}", "leaf", (climber.way,))
        self.gltf.buffers = [Buffer(byteLength=len(self.blob))]
        self.gltf.set_binary_blob(bytes(self.blob))
        return b"".join(self.gltf.save_to_bytes())

    def _material(self, stuff: str) -> int:
        if stuff not in self._materials:
            colour = COLOURS[_STUFFS.get(stuff, "ink")]  # type: ignore[index]
            parts = [(int(colour[i : i + 2], 16) / 255) ** 2.2 for i in (1, 3, 5)]
            look = PbrMetallicRoughness(
                baseColorFactor=[*parts, 1.0], metallicFactor=0.0, roughnessFactor=0.9
            )
            self._materials[stuff] = len(self.gltf.materials)
            self.gltf.materials.append(Material(name=stuff, pbrMetallicRoughness=look, doubleSided=True))
        return self._materials[stuff]

    def _strands(self, name: str, stuff: str, lines: Sequence[Sequence[Point]]) -> None:
        points = [point for line in lines for point in line]
        starts = np.cumsum([0, *(len(line) for line in lines)])
        pairs = [
            (start + i, start + i + 1)
            for start, line in zip(starts.tolist(), lines, strict=False)
            for i in range(len(line) - 1)
        ]
        if pairs:
            self._mesh(name, stuff, np.array(points), np.array(pairs), _LINES)

    def _mesh(self, name: str, stuff: str, points: Array, indices: Array, mode: int = _TRIANGLES) -> None:
        up = np.stack([points[:, 0], points[:, 2], -points[:, 1]], axis=1).astype("<f4")
        order = indices.astype("<u4").ravel()
        place = self._accessor(up.tobytes(), ARRAY_BUFFER, FLOAT, VEC3, len(up))
        self.gltf.accessors[place].min = up.min(axis=0).tolist()
        self.gltf.accessors[place].max = up.max(axis=0).tolist()
        by = self._accessor(order.tobytes(), ELEMENT_ARRAY_BUFFER, UNSIGNED_INT, SCALAR, len(order))
        primitive = Primitive(
            attributes=Attributes(POSITION=place), indices=by, material=self._material(stuff), mode=mode
        )
        self.gltf.meshes.append(Mesh(name=name, primitives=[primitive]))
        self.gltf.nodes.append(Node(name=name, mesh=len(self.gltf.meshes) - 1))
        self.gltf.scenes[0].nodes.append(len(self.gltf.nodes) - 1)

    def _accessor(self, data: bytes, target: int, kind: int, shape: str, count: int) -> int:
        view = BufferView(buffer=0, byteOffset=len(self.blob), byteLength=len(data), target=target)
        self.gltf.bufferViews.append(view)
        self.blob += data
        self.gltf.accessors.append(
            Accessor(bufferView=len(self.gltf.bufferViews) - 1, componentType=kind, count=count, type=shape)
        )
        return len(self.gltf.accessors) - 1


def _tube(bar: Bar) -> tuple[Array, Array]:
    """Return the skin of a bar along its points: corners (N, 3) and triangles (M, 3)."""
    points = np.array(bar.points)
    square = bar.section == "square"
    turns = [math.pi / 4 + math.pi / 2 * i for i in range(4)] if square else _ROUND
    out = math.sqrt(2) if square else 2.0
    wide, deep = bar.wide / out, bar.deep / out
    rings = []
    for i in range(len(points)):
        along = points[min(i + 1, len(points) - 1)] - points[max(i - 1, 0)]
        along /= max(float(np.linalg.norm(along)), 1e-12)
        side = np.cross(along, [0.0, 1.0, 0.0] if abs(along[1]) < 0.9 else [1.0, 0.0, 0.0])
        side /= np.linalg.norm(side)
        other = np.cross(along, side)
        rings.append([points[i] + math.cos(a) * wide * side + math.sin(a) * deep * other for a in turns])
    sides = len(turns)
    faces = []
    for i in range(len(points) - 1):
        for k in range(sides):
            a, b = i * sides + k, i * sides + (k + 1) % sides
            faces += [(a, b, b + sides), (a, b + sides, a + sides)]
    last = (len(points) - 1) * sides
    faces += [(0, k + 1, k) for k in range(1, sides - 1)]
    faces += [(last, last + k, last + k + 1) for k in range(1, sides - 1)]
    return np.array(rings).reshape(-1, 3), np.array(faces)


_ROUND = [math.tau * i / _SIDES for i in range(_SIDES)]
