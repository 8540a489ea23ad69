interface Props {
  label: string;
  value: string;
  choices: readonly { key: string; name: string }[];
  onPick: (key: string) => void;
}

/** One of a list, in one row. */
export function Pick({ label, value, choices, onPick }: Props) {
  return (
    <label className="row">
      <span className="label">{label}</span>
      <select
        className="select"
        value={value}
        title={choices.find((choice) => choice.key === value)?.name}
        onChange={(event) => onPick(event.target.value)}
      >
        {choices.map((choice) => (
          <option key={choice.key} value={choice.key}>
            {choice.name}
          </option>
        ))}
      </select>
    </label>
  );
}
