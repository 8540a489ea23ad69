interface Props {
  label?: string;
  value: string;
  most?: number;
  onName: (name: string) => void;
}

/** A name, kept when it is left or Enter is pressed; an empty one is not taken. */
export function NameRow({ label = "Name", value, most = 120, onName }: Props) {
  return (
    <label className="row">
      <span className="label">{label}</span>
      <input
        className="input"
        key={value}
        defaultValue={value}
        maxLength={most}
        onBlur={(event) => {
          const name = event.target.value.trim();
          if (name && name !== value) onName(name);
          else event.target.value = value;
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          if (event.key === "Escape") event.currentTarget.value = value;
        }}
      />
    </label>
  );
}
