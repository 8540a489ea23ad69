import type { Draft, OptionField, View } from "../../api/client";
import { QuantityField } from "../../ui/QuantityField";
import { putAt } from "./putAt";

interface Props {
  measure: View["measures"][number];
  draft: Draft;
  system: "metric" | "imperial";
  fields: readonly OptionField[];
  onChange: (draft: Draft) => void;
  onClose: () => void;
}

/** A dimension opened for writing where it stands on the drawing. */
export function MeasureEditor({ measure, draft, system, fields, onChange, onClose }: Props) {
  const field = fields.find((each) => `options.${each.name}` === measure.option);
  return (
    <QuantityField
      label={measure.label}
      text={measure.text}
      value={measure.value}
      kind="length"
      system={system}
      low={field ? field.low : 0.03}
      high={field ? field.high : 3}
      step={field?.step ?? 0.01}
      focused
      onLeave={onClose}
      onValue={(value) => onChange(putAt(draft, measure.option, Number(value.toFixed(4))))}
    />
  );
}
