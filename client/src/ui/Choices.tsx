import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";

interface Props<Value extends string> {
  label: string;
  value: Value;
  choices: readonly (readonly [Value, string])[];
  onPick: (value: Value) => void;
}

/** One of a few, all of them seen side by side. */
export function Choices<Value extends string>({ label, value, choices, onPick }: Props<Value>) {
  return (
    <ToggleButtonGroup
      exclusive
      aria-label={label}
      value={value}
      onChange={(_event, next: Value | null) => next !== null && onPick(next)}
    >
      {choices.map(([key, name]) => (
        <ToggleButton key={key} value={key}>
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
