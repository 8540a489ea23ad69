import type { Draft, Schemas } from "../../api/client";
import { DayOfYear } from "../../ui/DayOfYear";
import { Pick } from "../../ui/Pick";
import type { ChangeDraft } from "./useDraft";
import { say } from "../../texts/say";

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
    <div role="group" aria-label={say("bench.covers")}>
      {draft.covers.length > 0 && <h2>{say("bench.covers")}</h2>}
      {draft.covers.map((cover, i) => (
        <div key={i} role="group" aria-label={say("bench.cover", { i: i + 1 })}>
          <Pick
            label={say("bench.cover2")}
            value={cover.cover}
            choices={catalogue.covers}
            onPick={(key) => change(i, { cover: key })}
          />
          <DayOfYear label={say("bench.onFrom")} value={cover.on} onDate={(on) => change(i, { on })} />
          <DayOfYear label={say("bench.offOn")} value={cover.off} onDate={(off) => change(i, { off })} />
          <button type="button" className="plain" onClick={() => put(draft.covers.filter((_, n) => n !== i))}>
            {say("bench.removeCover")}
          </button>
        </div>
      ))}
      {draft.covers.length < MOST && (
        <button
          type="button"
          className="plain"
          onClick={() => put([...draft.covers, { cover: first, on: "06-15", off: "08-31" }])}
        >
          {say("bench.addACover")}
        </button>
      )}
    </div>
  );
}
