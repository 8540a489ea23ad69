import { useId } from "react";

interface Props {
  label: string;
  value: string;
  choices: readonly { key: string; name: string }[];
  onPick: (key: string) => void;
}

/** One of a list. */
export function Pick({ label, value, choices, onPick }: Props) {
  const id = useId();
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <select id={id} className="select" value={value} onChange={(event) => onPick(event.target.value)}>
        {choices.map((choice) => (
          <option key={choice.key} value={choice.key}>
            {choice.name}
          </option>
        ))}
      </select>
    </div>
  );
}
