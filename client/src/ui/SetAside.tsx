import Button from "@mui/material/Button";
import { useState } from "react";
import { Link } from "react-router";

import type { Edit, Garden } from "../api/client";
import { useCatalogue } from "../api/queries";
import { queue } from "../queue/queue";
import { useWrites } from "../queue/useQueue";
import { editsOf, laneOf, type Write } from "../queue/writes";
import { QuantityRow } from "./QuantityRow";
import { say } from "../texts/say";

type Units = Garden["units"];
type Value = string | number;

/**
 * What was refused: its words, what is allowed, and a way to mend it or to discard it. Nothing behind it
 * waits.
 */
export function SetAside({ garden, units }: { garden: number; units: Units }) {
  const refused = useWrites(laneOf(garden)).filter((write) => write.state === "refused");
  if (!refused.length) return null;
  return (
    <section className="conflict noprint" role="alert" aria-label={say("ui.setAside")}>
      {refused.map((write) => (
        <Aside key={write.mark} write={write} units={units} />
      ))}
    </section>
  );
}

/** Where a problem stands in an edit: which edit, and the names down to the value. */
function placeOf(path: string): { edit: number; way: string[] } | null {
  const found = /^edits\[(\d+)\]\.\w+\.change\.([\w.]+)$/.exec(path);
  return found ? { edit: Number(found[1]), way: (found[2] ?? "").split(".") } : null;
}

const read = (from: unknown, way: string[]): unknown =>
  way.reduce<unknown>((value, name) => (value as Record<string, unknown> | undefined)?.[name], from);

function put(
  into: Record<string, unknown>,
  [name = "", ...rest]: string[],
  value: Value,
): Record<string, unknown> {
  return {
    ...into,
    [name]: rest.length ? put((into[name] ?? {}) as Record<string, unknown>, rest, value) : value,
  };
}

const BEARINGS = new Set(["bearing", "turn", "latitude"]);

function Aside({ write, units }: { write: Write; units: Units }) {
  const catalogue = useCatalogue(units);
  const [edits, setEdits] = useState<Edit[]>(editsOf(write));
  const structure = /^structure\/(\d+)$/.exec(write.about)?.[1];
  const kindOf = (name: string) => {
    const kind = catalogue.data?.families
      .flatMap((family) => family.options)
      .find((option) => option.name === name)?.kind;
    if (kind) return kind as "length";
    if (BEARINGS.has(name)) return "bearing";
    return name === "design_gust" ? "speed" : "length";
  };
  return (
    <div>
      <p>
        <strong>{say("ui.notSaved2")}</strong>{" "}
        {say("ui.everythingElseIsSavedCorrectIt", { words: write.words })}
      </p>
      {write.problems.map((problem) => {
        const place = placeOf(problem.path);
        const value = place && read(edits[place.edit]?.change, place.way);
        const name = place?.way.at(-1) ?? "";
        const label = name.replaceAll("_", " ");
        const mended = (next: Value) =>
          setEdits((now) =>
            now.map((edit, i) =>
              place && i === place.edit
                ? { ...edit, change: put((edit.change ?? {}) as Record<string, unknown>, place.way, next) }
                : edit,
            ),
          );
        return (
          <div key={problem.path}>
            <p className="refusal">
              {problem.path.split(".").at(-1)?.replaceAll("_", " ")} {problem.given}: {problem.allowed}
            </p>
            {typeof value === "number" && (
              <QuantityRow
                label={label}
                text={String(value)}
                value={value}
                kind={kindOf(name)}
                system={units}
                onValue={mended}
              />
            )}
            {typeof value === "string" && (
              <label className="row">
                <span className="label">{label}</span>
                <input className="input" value={value} onChange={(event) => mended(event.target.value)} />
              </label>
            )}
          </div>
        );
      })}
      <p className="actions">
        {structure ? (
          <Link className="button" to={`/structures/${structure}`}>
            {say("ui.correctItInTheDesign")}
          </Link>
        ) : (
          <Button
            onClick={() =>
              queue.mend(
                write.mark,
                edits.length ? { edits: edits.map((edit) => ({ ...edit, revision: null })) } : write.body,
              )
            }
          >
            {edits.length ? say("ui.saveTheCorrection") : say("ui.tryAgain")}
          </Button>
        )}
        <button type="button" className="plain" onClick={() => queue.drop(write.mark)}>
          {say("ui.discardIt")}
        </button>
      </p>
    </div>
  );
}
