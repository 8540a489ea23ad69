import {
  BufferGeometry,
  CircleGeometry,
  Color,
  Float32BufferAttribute,
  Group,
  IcosahedronGeometry,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Quaternion,
  Vector3,
} from "three";

import { instances, type Place, put, type Showing } from "./showing";

const LEAVES = 56; // on a plant at its full height
const MOST_LEAVES = 8000;
const MANY = 400; // fruit, or tenfold leaves, of which each is drawn with fewer corners

/** A number between 0 and 1 that is always the same for the same place. */
const chance = (seed: number) => (((Math.sin(seed * 127.1) * 43758.5453) % 1) + 1) % 1;

/** Stems along their way as far as they have grown, leaves round them, fruit among the leaves. */
export function plants({ solid, foliage, week }: Showing, ink: (name: string) => string): Group {
  const group = new Group();
  const stems: number[] = [];
  const leaves: { at: Matrix4; colour: string }[] = [];
  const fruits: { at: Matrix4; colour: string }[] = [];
  const share = Math.min(1, MOST_LEAVES / Math.max(solid.climbers.length * LEAVES, 1));
  const inks = [ink("--leaf"), ink("--leaf2")];
  for (const [n, climber] of solid.climbers.entries()) {
    const course = foliage[climber.planting];
    if (!course) continue;
    const grown = course.top[week] ?? 0;
    const cover = course.cover[week] ?? 0;
    const way = walked(climber.way, grown);
    for (const [i, end] of way.entries()) {
      const start = way[i - 1];
      if (start) stems.push(...put(start).toArray(), ...put(end).toArray());
    }
    const count = Math.round(LEAVES * share * Math.min(grown / 1.2, 1.6) * (0.35 + 0.65 * cover));
    const spread = course.depth * 0.45;
    for (let k = 0; k < count; k++) {
      const seed = n * 61 + k;
      const at = put(
        along(
          way,
          course.bottom / Math.max(grown, 0.01) + (1 - course.bottom / Math.max(grown, 0.01)) * chance(seed),
        ),
      );
      at.add(
        new Vector3(
          (chance(seed + 0.3) - 0.5) * 2 * spread,
          (chance(seed + 0.5) - 0.5) * 0.12,
          (chance(seed + 0.7) - 0.5) * 2 * spread,
        ),
      );
      if (at.y < 0.02) at.y = 0.02 + 0.05 * chance(seed + 0.9);
      const turned = new Quaternion().setFromAxisAngle(
        new Vector3(chance(seed + 1) - 0.5, chance(seed + 2), chance(seed + 3) - 0.5).normalize(),
        chance(seed + 4) * 6.28,
      );
      const size = 0.07 + 0.06 * chance(seed + 5);
      leaves.push({
        at: new Matrix4().compose(at, turned, new Vector3(size, size * 1.35, 1)),
        colour: inks[k % 2] ?? "",
      });
    }
    const hung = course.fruit_kg[week] ?? 0;
    const many = Math.min(Math.round(hung / Math.max(0.6 * course.fruit_size ** 3 * 900, 0.01)), 9);
    for (let k = 0; k < many; k++) {
      const seed = n * 37 + k * 7 + 0.5;
      const at = put(along(way, 0.25 + 0.65 * chance(seed)));
      at.add(new Vector3((chance(seed + 1) - 0.5) * spread, 0, (chance(seed + 2) - 0.5) * spread * 1.6));
      const size = Math.max(course.fruit_size, 0.015);
      fruits.push({
        at: new Matrix4().compose(at, new Quaternion(), new Vector3(size, size, size)),
        colour: ink("--fruit"),
      });
    }
  }
  if (stems.length)
    group.add(
      new LineSegments(
        new BufferGeometry().setAttribute("position", new Float32BufferAttribute(stems, 3)),
        new LineBasicMaterial({ color: new Color(ink("--leaf2")) }),
      ),
    );
  if (leaves.length) group.add(instances(new CircleGeometry(0.5, leaves.length > 10 * MANY ? 4 : 6), leaves));
  if (fruits.length) group.add(instances(new IcosahedronGeometry(0.5, fruits.length > MANY ? 0 : 2), fruits));
  return group;
}

/** A way as far as a plant of some height has come along it. */
function walked(way: readonly Place[], grown: number): Place[] {
  const found: Place[] = [];
  let left = grown;
  for (const [i, end] of way.entries()) {
    const start = way[i - 1];
    if (!start) {
      found.push(end);
      continue;
    }
    const long = Math.hypot(end[0] - start[0], end[1] - start[1], end[2] - start[2]);
    const share = long > 0 ? Math.min(left / long, 1) : 0;
    found.push([
      start[0] + share * (end[0] - start[0]),
      start[1] + share * (end[1] - start[1]),
      start[2] + share * (end[2] - start[2]),
    ]);
    left -= long;
    if (left <= 0) break;
  }
  return found;
}

/** The place at a share of the way. */
function along(way: readonly Place[], share: number): Place {
  const longs = way.map((end, i) =>
    i && way[i - 1] ? Math.hypot(...end.map((v, k) => v - (way[i - 1]?.[k] ?? 0))) : 0,
  );
  let left = Math.min(Math.max(share, 0), 1) * longs.reduce((a, b) => a + b, 0);
  for (const [i, long] of longs.entries()) {
    const [start, end] = [way[i - 1], way[i]];
    if (!start || !end || left > long) {
      left -= long;
      continue;
    }
    const part = long > 0 ? left / long : 0;
    return [
      start[0] + part * (end[0] - start[0]),
      start[1] + part * (end[1] - start[1]),
      start[2] + part * (end[2] - start[2]),
    ];
  }
  return way[way.length - 1] ?? [0, 0, 0];
}
