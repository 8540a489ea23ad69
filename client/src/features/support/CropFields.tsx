import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";

export type Grown = Schemas["Grown"];

const TRAINED = [
  { key: "pruned", name: "pruned, close together" },
  { key: "free", name: "left to grow, wider apart" },
];

interface Props {
  row: Grown;
  /** Which crop of the support it is; the first says nothing. */
  number: number;
  crops: readonly { key: string; name: string }[];
  sides: Readonly<Record<string, string>>;
  most: number;
  /** Nothing where what is written of its number cannot be read. */
  onRow: (row: Grown, readable: boolean) => void;
  onRemove?: () => void;
}

/** A crop that is wanted on a support: which, on which side, how it is trained, how many of it. */
export function CropFields({ row, number, crops, sides, most, onRow, onRemove }: Props) {
  const [written, setWritten] = useState(row.count == null ? "" : String(row.count));
  const readable = (text: string) => text === "" || (/^[1-9]\d*$/.test(text) && Number(text) <= most);
  const wrong = !readable(written);
  const told = (change: Partial<Grown>, text = written) => {
    const count = text !== "" && readable(text) ? Number(text) : null;
    onRow({ ...row, ...change, count }, readable(text));
  };
  const nth = number > 0 ? ` ${number + 1}` : "";
  return (
    <div role="group" aria-label={`Crop${nth}`} className="croprow">
      <Pick label={`Crop${nth}`} value={row.crop} choices={crops} onPick={(crop) => told({ crop })} />
      <Pick
        label="Planted on"
        value={row.side}
        choices={Object.entries(sides).map(([key, name]) => ({ key, name }))}
        onPick={(side) => told({ side: side as "left" })}
      />
      <Pick
        label="Trained"
        value={row.training}
        choices={TRAINED}
        onPick={(training) => told({ training: training as "free" })}
      />
      <label className="row">
        <span className="label">How many</span>
        <input
          className="input"
          inputMode="numeric"
          placeholder="as many as fit"
          value={written}
          aria-invalid={wrong}
          aria-label={`How many plants${nth}`}
          onChange={(event) => {
            setWritten(event.target.value);
            told({}, event.target.value);
          }}
        />
      </label>
      {wrong && (
        <p role="alert" className="refusal">
          How many plants: ‘{written}’ cannot be used. Enter 1 to {most}.
        </p>
      )}
      {onRemove && (
        <button type="button" className="plain" onClick={onRemove}>
          Remove this crop
        </button>
      )}
    </div>
  );
}
