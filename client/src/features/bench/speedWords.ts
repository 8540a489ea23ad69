const SPEED = { metric: { factor: 1, unit: "m/s" }, imperial: { factor: 2.2369363, unit: "mph" } };
const MOST = 45;

export interface SpeedWords {
  factor: number;
  unit: string;
  say: (metresPerSecond: number) => string;
}

/** How the tide's figures are written; a limit is never rounded up. */
export function speedWords(system: "metric" | "imperial"): SpeedWords {
  const { factor, unit } = SPEED[system];
  const say = (metres: number) => {
    if (metres >= MOST) return `over ${Math.round(MOST * factor)} ${unit}`;
    const shown = metres * factor;
    return `${shown < 9.95 ? (Math.floor(shown * 10 + 1e-6) / 10).toFixed(1) : Math.floor(shown + 1e-6).toFixed(0)} ${unit}`;
  };
  return { factor, unit, say };
}
