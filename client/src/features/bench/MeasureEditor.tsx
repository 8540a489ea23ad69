import type { OptionField, Schemas, View } from "../../api/client";
import { QuantityField } from "../../ui/QuantityField";
import { putAt } from "./putAt";
import type { ChangeDraft } from "./useDraft";

interface Props {
  measure: View["measures"][number];
  system: "metric" | "imperial";
  fields: readonly OptionField[];
  bounds: Schemas["Catalogue"]["bounds"];
  onChange: ChangeDraft;
  onClose: () => void;
}

/** A dimension opened for writing where it stands on the drawing. */
export function MeasureEditor({ measure, system, fields, bounds, onChange, onClose }: Props) {
  const field = fields.find((each) => `options.${each.name}` === measure.option);
  const allowed = field ?? bounds["planting.spacing"];
  return (
    <QuantityField
      label={measure.label}
      text={measure.text}
      value={measure.value}
      kind="length"
      system={system}
      low={allowed?.low}
      high={allowed?.high}
      step={field?.step ?? 0.01}
      focused
      onLeave={onClose}
      onValue={(value) => onChange((now) => putAt(now, measure.option, Number(value.toFixed(4))))}
    />
  );
}
