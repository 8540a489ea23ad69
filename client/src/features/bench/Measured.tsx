import Slider from "@mui/material/Slider";

import type { Schemas } from "../../api/client";
import { QuantityField } from "../../ui/QuantityField";
import { say } from "../../texts/say";

interface Props {
  label: string;
  kind: Schemas["QuantityIn"]["kind"];
  low: number;
  high: number;
  reach?: number;
  step: number;
  value: number;
  text: string;
  system: "metric" | "imperial";
  grip: string;
  onValue: (value: number, grip?: string) => void;
  onRelease: () => void;
}

/**
 * A quantity in one row: its name, a track to drag as far as its `reach`, and the figure to write over, up to
 * what is allowed.
 */
export function Measured({
  label,
  kind,
  low,
  high,
  reach = high,
  step,
  value,
  text,
  system,
  grip,
  onValue,
  onRelease,
}: Props) {
  const round = (v: number) => Number(v.toFixed(4));
  return (
    <div className="row measured">
      <span className="label" aria-hidden="true">
        {label}
      </span>
      <Slider
        aria-label={say("bench.slide", { label })}
        value={value}
        min={low}
        max={Math.max(Math.min(reach, high), value)}
        step={step}
        onChange={(_, v) => onValue(round(v), grip)}
        onChangeCommitted={onRelease}
      />
      <QuantityField
        label={label}
        hideLabel
        text={text}
        value={value}
        kind={kind}
        system={system}
        low={low}
        high={high}
        step={step}
        onValue={(v) => onValue(round(v))}
      />
    </div>
  );
}
