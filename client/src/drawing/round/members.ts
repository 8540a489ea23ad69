import {
  BoxGeometry,
  BufferGeometry,
  Color,
  CylinderGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Quaternion,
  Vector3,
} from "three";

import { instances, put, type Showing } from "./showing";

const UP = new Vector3(0, 1, 0);

/**
 * Every member with its real section; what is too thin for one as a line; the weakest link in plain ink, in
 * the accent if it falls short.
 */
export function members({ solid, weak, short, lit }: Showing, ink: (name: string) => string): Group {
  const group = new Group();
  const colour = (member: string, stuff: string) =>
    weak.has(member) && short
      ? ink("--weak")
      : weak.has(member) || lit.has(member)
        ? ink("--ink")
        : ink({ wood: "--wood", cane: "--cane", twine: "--cane", leaf: "--leaf2" }[stuff] ?? "--metal");
  const pieces: Record<"round" | "square", { at: Matrix4; colour: string }[]> = { round: [], square: [] };
  for (const bar of solid.bars) {
    // the soil that grips is shown where it is spoken of
    if (bar.stuff === "soil" && !weak.has(bar.member) && !lit.has(bar.member)) continue;
    for (const [i, end] of bar.points.entries()) {
      const start = bar.points[i - 1];
      if (!start) continue;
      const [a, b] = [put(start), put(end)];
      const along = b.clone().sub(a);
      const long = along.length();
      if (long < 1e-4) continue;
      const turned = new Quaternion().setFromUnitVectors(UP, along.clone().divideScalar(long));
      pieces[bar.section].push({
        at: new Matrix4().compose(
          a.add(b).multiplyScalar(0.5),
          turned,
          new Vector3(bar.wide, long, bar.deep),
        ),
        colour: colour(bar.member, bar.stuff),
      });
    }
  }
  for (const section of ["round", "square"] as const) {
    const found = pieces[section];
    if (!found.length) continue;
    const shape = section === "round" ? new CylinderGeometry(0.5, 0.5, 1, 10) : new BoxGeometry(1, 1, 1);
    group.add(instances(shape, found));
  }
  const strands = new Map<string, number[]>();
  for (const strand of solid.strands) {
    const key = colour(strand.member, strand.stuff);
    const places = strands.get(key) ?? [];
    for (const line of strand.lines)
      for (const [i, end] of line.entries()) {
        const start = line[i - 1];
        if (start) places.push(...put(start).toArray(), ...put(end).toArray());
      }
    strands.set(key, places);
  }
  for (const [key, places] of strands) {
    const shape = new BufferGeometry().setAttribute("position", new Float32BufferAttribute(places, 3));
    const lines = new LineSegments(shape, new LineBasicMaterial({ color: new Color(key) }));
    lines.castShadow = true;
    group.add(lines);
  }
  return group;
}
