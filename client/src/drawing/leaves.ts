import type { Schemas, View } from "../api/client";
import { along } from "./along";
import type { Flat, Scale } from "./scale";

type Plant = View["plants"][number];

/** A small repeatable chance, so that a plant keeps its leaves while the hand moves. */
function chance(seed: number): () => number {
  let state = seed * 2654435761 + 101;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 3266489917) >>> 0;
    return state / 4294967296;
  };
}

export interface Leaves {
  dark: string;
  light: string;
  stems: string;
  fruit: { at: Flat; r: number }[];
}

const MOST = 1500;
const MOST_FRUIT = 420;

/** Stems, leaves and fruit of one planting in one week, as a few long paths. */
export function leavesOf(
  foliage: Schemas["Foliage"],
  plants: readonly Plant[],
  week: number,
  scale: Scale,
  spread: number,
): Leaves {
  const top = foliage.top[week] ?? 0;
  const cover = foliage.cover[week] ?? 0;
  const kilograms = foliage.fruit_kg[week] ?? 0;
  const leaves: Leaves = { dark: "", light: "", stems: "", fruit: [] };
  if (top < 0.02) return leaves;
  const low = Math.min(foliage.bottom, top * 0.4);
  const size = 0.055 + 0.05 * Math.min(cover, 1);
  const each = Math.min(
    Math.ceil((cover * spread * (top - low)) / (size * size * 0.55)),
    Math.floor(MOST / Math.max(plants.length, 1)),
  );
  plants.forEach(({ at: foot, way }, index) => {
    const random = chance(index + 7);
    const sway = way.length > 1 ? 0 : (random() - 0.5) * spread * 0.4;
    const on = (height: number): Flat => {
      const [u, v] = along(foot, way, height);
      return [u + sway * (height / top), v];
    };
    const steps = way.length > 1 ? 10 : 2;
    leaves.stems += Array.from(
      { length: steps + 1 },
      (_, i) =>
        `${i ? "L" : "M"}${scale
          .at(on((top * i) / steps))
          .map((n) => n.toFixed(1))
          .join(" ")}`,
    ).join("");
    for (let n = 0; n < each; n += 1) {
      const height = low + Math.pow(random(), 0.85) * (top - low);
      const [u, v] = on(height);
      const [x, y] = scale.at([
        u + (random() - 0.5) * spread * 1.15,
        way.length > 1 ? v + (random() - 0.5) * 0.2 : v,
      ]);
      const r = size * scale.perMetre * (0.6 + random() * 0.8);
      const turn = random() * Math.PI * 2;
      const [dx, dy] = [Math.cos(turn) * r, Math.sin(turn) * r];
      const d = `M${x.toFixed(1)} ${y.toFixed(1)}q${(dx * 0.3 - dy * 0.42).toFixed(1)} ${(dy * 0.3 + dx * 0.42).toFixed(1)} ${dx.toFixed(1)} ${dy.toFixed(1)}q${(-dx * 0.7 + dy * 0.42).toFixed(1)} ${(-dy * 0.7 - dx * 0.42).toFixed(1)} ${(-dx).toFixed(1)} ${(-dy).toFixed(1)}`;
      if (n % 3 === 0) leaves.light += d;
      else leaves.dark += d;
    }
    const fruits = Math.min(Math.round(kilograms * 5), 9, Math.ceil(MOST_FRUIT / plants.length));
    for (let n = 0; n < fruits; n += 1) {
      const height = low + (0.1 + 0.75 * random()) * (top - low);
      const [u, v] = on(height);
      // fruit hangs below what is bent over it
      const hung = way.length > 1 ? Math.min(0.15 + foliage.fruit_size / 2, v) : 0;
      leaves.fruit.push({
        at: scale.at([u + (random() - 0.5) * spread * 0.7, v - hung]),
        r: Math.max((foliage.fruit_size / 2) * scale.perMetre, 1.6),
      });
    }
  });
  return leaves;
}
