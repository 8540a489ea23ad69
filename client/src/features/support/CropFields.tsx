import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Pick } from "../../ui/Pick";
import { say } from "../../texts/say";

export type Grown = Schemas["Grown"];

const TRAINED = [
  { key: "pruned", name: say("support.prunedCloseTogether") },
  { key: "free", name: say("support.leftToGrowWiderApart") },
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
    <div role="group" aria-label={say("support.crop", { nth })} className="croprow">
      <Pick
        label={say("support.crop", { nth })}
        value={row.crop}
        choices={crops}
        onPick={(crop) => told({ crop })}
      />
      <Pick
        label={say("support.plantedOn")}
        value={row.side}
        choices={Object.entries(sides).map(([key, name]) => ({ key, name }))}
        onPick={(side) => told({ side: side as "left" })}
      />
      <Pick
        label={say("support.trained")}
        value={row.training}
        choices={TRAINED}
        onPick={(training) => told({ training: training as "free" })}
      />
      <label className="row">
        <span className="label">{say("support.howMany")}</span>
        <input
          className="input"
          inputMode="numeric"
          placeholder={say("support.asManyAsFit")}
          value={written}
          aria-invalid={wrong}
          aria-label={say("support.howManyPlants", { nth })}
          onChange={(event) => {
            setWritten(event.target.value);
            told({}, event.target.value);
          }}
        />
      </label>
      {wrong && (
        <p role="alert" className="refusal">
          {say("support.howManyPlantsCannotBeUsed", { written, most })}
        </p>
      )}
      {onRemove && (
        <button type="button" className="plain" onClick={onRemove}>
          {say("support.removeThisCrop")}
        </button>
      )}
    </div>
  );
}
