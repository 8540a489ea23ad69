import { useMemo } from "react";

import type { Report, View } from "../api/client";
import { leavesOf } from "./leaves";
import type { Scale } from "./scale";

interface Props {
  view: View;
  foliage: Report["foliage"];
  week: number;
  scale: Scale;
  lean: number;
}

/** Stems, leaves and fruit grown to a week; from above, each plant's spread. */
export function Foliage({ view, foliage, week, scale, lean }: Props) {
  const plants = useMemo(
    () =>
      foliage.map((crop, index) => {
        const plants = view.plants.filter((plant) => plant.planting === index);
        const feet = plants.map((plant) => plant.at);
        const gap =
          feet.length > 1 && view.name === "elevation"
            ? Math.abs((feet[1]?.[0] ?? 0) - (feet[0]?.[0] ?? 0))
            : crop.depth;
        const sides = [...new Map(plants.map((plant) => [plant.at[0].toFixed(2), plant])).values()];
        const shown = view.name === "end" ? sides : plants;
        const spread = view.name === "elevation" ? Math.max(gap, 0.08) : (crop.depth * 0.8) / sides.length;
        return {
          feet,
          leaves:
            view.name === "plan"
              ? null
              : leavesOf(crop, shown, week, scale, view.name === "end" ? spread : Math.max(gap, 0.08)),
          crop,
        };
      }),
    [foliage, view, week, scale],
  );
  return (
    <g
      pointerEvents="none"
      transform={
        view.name === "end" ? `translate(${(lean * scale.perMetre * 0.35).toFixed(1)} 0)` : undefined
      }
    >
      {plants.map(({ feet, leaves, crop }, index) =>
        leaves ? (
          <g key={index}>
            <path d={leaves.stems} stroke="var(--leaf2)" strokeWidth={1.6} fill="none" />
            <path d={leaves.dark} fill="var(--leaf)" opacity={0.62} />
            <path d={leaves.light} fill="var(--leaf2)" opacity={0.6} />
            {leaves.fruit.map((fruit, n) => (
              <circle
                key={n}
                cx={fruit.at[0]}
                cy={fruit.at[1]}
                r={fruit.r}
                fill="var(--fruit)"
                stroke="var(--ink)"
                strokeWidth={0.5}
              />
            ))}
          </g>
        ) : (
          <g key={index}>
            {feet.map((foot) => {
              const [x, y] = scale.at(foot);
              const spread =
                Math.sqrt(crop.cover[week] ?? 0) * Math.min(crop.depth * 0.42, 0.3) * scale.perMetre;
              return (
                <g key={`${foot[0]}/${foot[1]}`}>
                  <circle
                    cx={x}
                    cy={y}
                    r={Math.max(spread, 2.5)}
                    fill="var(--leaf)"
                    opacity={0.6}
                    stroke="var(--leaf2)"
                  />
                  <circle cx={x} cy={y} r={1.6} fill="var(--leaf2)" />
                </g>
              );
            })}
          </g>
        ),
      )}
    </g>
  );
}
