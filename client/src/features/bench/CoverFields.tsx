import type { Draft, Schemas } from "../../api/client";
import { DayOfYear } from "../../ui/DayOfYear";
import { Pick } from "../../ui/Pick";
import type { ChangeDraft } from "./useDraft";

type Covered = Schemas["Covered"];

interface Props {
  draft: Draft;
  catalogue: Schemas["Catalogue"];
  onChange: ChangeDraft;
}

const MOST = 3;

/** Cloths and films over a structure in weeks of their own, each calculated with its wind, and with snow. */
export function CoverFields({ draft, catalogue, onChange }: Props) {
  const put = (covers: readonly Covered[]) => onChange((now) => ({ ...now, covers: [...covers] }));
  const change = (at: number, part: Partial<Covered>) =>
    put(draft.covers.map((cover, i) => (i === at ? { ...cover, ...part } : cover)));
  const first = catalogue.covers[0]?.key ?? "";
  return (
    <div role="group" aria-label="Covers">
      {draft.covers.length > 0 && <h2>Covers</h2>}
      {draft.covers.map((cover, i) => (
        <div key={i} role="group" aria-label={`Cover ${i + 1}`}>
          <Pick
            label="Cover"
            value={cover.cover}
            choices={catalogue.covers}
            onPick={(key) => change(i, { cover: key })}
          />
          <DayOfYear label="On from" value={cover.on} onDate={(on) => change(i, { on })} />
          <DayOfYear label="Off on" value={cover.off} onDate={(off) => change(i, { off })} />
          <button type="button" className="plain" onClick={() => put(draft.covers.filter((_, n) => n !== i))}>
            Remove cover
          </button>
        </div>
      ))}
      {draft.covers.length < MOST && (
        <button
          type="button"
          className="plain"
          onClick={() => put([...draft.covers, { cover: first, on: "06-15", off: "08-31" }])}
        >
          Add a cover
        </button>
      )}
    </div>
  );
}
