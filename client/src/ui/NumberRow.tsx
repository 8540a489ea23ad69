import { useState } from "react";
import { say } from "../texts/say";

interface Props {
  name: string;
  empty: string;
  bounds: readonly [number, number];
  value: number | null;
  onValue: (value: number | null) => void;
}

/** A plain number that may be left out. */
export function NumberRow({ name, empty, bounds: [low, high], value, onValue }: Props) {
  const [text, setText] = useState(value === null ? "" : String(value));
  const number = Number(text.replace(",", "."));
  const wrong = text.trim() !== "" && !(number >= low && number <= high);
  return (
    <>
      <label className="row">
        <span className="label">{name}</span>
        <input
          className="input"
          inputMode="decimal"
          placeholder={empty}
          value={text}
          aria-invalid={wrong}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => !wrong && onValue(text.trim() === "" ? null : number)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && !wrong) onValue(text.trim() === "" ? null : number);
          }}
        />
      </label>
      {wrong && (
        <p role="alert" className="refusal">
          {say("ui.cannotBeUsedEnterTo", { name, text, low, high })}
        </p>
      )}
    </>
  );
}
