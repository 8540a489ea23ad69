import Button from "@mui/material/Button";
import { useState } from "react";

import type { Building } from "../../api/building";
import { api, Refused, taken } from "../../api/client";
import { useSession } from "../../api/queries";
import { Choices } from "../../ui/Choices";
import { Pick } from "../../ui/Pick";
import { QuantityField } from "../../ui/QuantityField";
import { Tick } from "../../ui/Tick";
import type { Pull, Written } from "./useRecord";

interface Row {
  pull: number;
  pullText: string;
  moved: number;
  movedText: string;
}

const STATES = [
  ["dry", "dry"],
  ["moist", "moist"],
  ["wet", "wet"],
] as const;
const HEIGHT = { metric: [1.2, "1.20 m"], imperial: [1.2192, "4 ft"] } as const;
const LEAST = 2;

/** Pull a post with a hanging scale, write pull and movement, and see what they say of the soil. */
export function PullTests({ building, written }: { building: Building; written: Written }) {
  const { pulls } = building.report;
  const { units } = building;
  const session = useSession();
  const [member, setMember] = useState(pulls.posts[0]?.[0] ?? "");
  const [height, setHeight] = useState<readonly [number, string]>(HEIGHT[units]);
  const [state, setState] = useState<Pull["state"]>("moist");
  const [movedOn, setMovedOn] = useState(false);
  const [rows, setRows] = useState<readonly Row[]>([]);
  const [said, setSaid] = useState("");
  const [reading, setReading] = useState(false);
  const nothing = units === "metric" ? ["0 N", "0 mm"] : ["0 lbf", "0 in"];
  const add = (pull: number, text: string) =>
    setRows((now) => [
      ...now,
      {
        pull,
        pullText: text,
        moved: now.at(-1)?.moved ?? 0,
        movedText: now.at(-1)?.movedText ?? nothing[1] ?? "",
      },
    ]);
  const change = (at: number, what: Partial<Row>) =>
    setRows((now) => now.map((row, i) => (i === at ? { ...row, ...what } : row)));
  const read = async () => {
    setReading(true);
    try {
      const hung = await taken(
        api.POST("/api/gardens/{garden_id}/scale", { params: { path: { garden_id: building.garden } } }),
      );
      add(hung.pull, hung.text);
      setSaid(`${hung.name}: ${hung.text}. Now write how far the post has moved.`);
    } catch (error) {
      const problem = error instanceof Refused ? error.problems[0] : undefined;
      setSaid(
        problem
          ? `The scale: ${problem.given}; ${problem.allowed}.`
          : "The server did not answer. Enter the pull yourself.",
      );
    } finally {
      setReading(false);
    }
  };
  const save = () => {
    written.pulled({
      member,
      height: height[0],
      state,
      moved_on: movedOn,
      readings: rows.map(({ pull, moved }) => ({ pull: Math.max(pull, 0), moved })),
    });
    setRows([]);
    setSaid("");
  };
  return (
    <section className="pulltests">
      {pulls.used && <p>{pulls.used}</p>}
      {pulls.done.map((test) => (
        <article key={test.key}>
          <h2>{test.words}</h2>
          {test.wrong ? <p>{test.wrong}</p> : <p>{test.stiffness}</p>}
          {test.grip && <p>{test.grip}</p>}
          <p className="quiet">{test.readings.map(([pull, moved]) => `${pull}: ${moved}`).join(" · ")}</p>
          {building.may_edit && (
            <p className="actions">
              {test.tested && (
                <Button onClick={() => test.tested && written.useForBed(test.tested)}>
                  Use this result for this bed
                </Button>
              )}
              <Button onClick={() => written.forgetPull(test.key)}>Delete this pull test</Button>
            </p>
          )}
        </article>
      ))}
      {pulls.used && building.may_edit && (
        <p className="actions">
          <Button onClick={() => written.useForBed(null)}>Use the table for this bed again</Button>
        </p>
      )}
      {pulls.posts.length === 0 ? (
        <p>This support has no post in the soil to pull at.</p>
      ) : (
        building.may_edit && (
          <>
            <h2>Pull a post</h2>
            <p>
              Hook a hanging scale round the post at one height, pull level and slowly, in three steps or
              more, and read each time how far the post has moved there. Let it back and read once more. Stop
              when it creeps.
            </p>
            <div className="pullform">
              <Pick
                label="Post"
                value={member}
                choices={pulls.posts.map(([key, name]) => ({ key, name }))}
                onPick={setMember}
              />
              <QuantityField
                label="Height of the pull"
                text={height[1]}
                value={height[0]}
                kind="length"
                system={units}
                low={0.2}
                high={3}
                onValue={(value, text) => setHeight([value, text])}
              />
              <Choices label="State of the soil" value={state} choices={STATES} onPick={setState} />
            </div>
            {rows.length > 0 && (
              <ol className="readings">
                {rows.map((row, i) => (
                  <li key={i}>
                    <QuantityField
                      label={`Pull ${i + 1}`}
                      text={row.pullText}
                      value={row.pull}
                      kind="force"
                      system={units}
                      low={0}
                      high={5000}
                      onValue={(pull, pullText) => change(i, { pull, pullText })}
                    />
                    <QuantityField
                      label={`Moved ${i + 1}`}
                      text={row.movedText}
                      value={row.moved}
                      kind="length"
                      system={units}
                      low={-0.1}
                      high={1}
                      onValue={(moved, movedText) => change(i, { moved, movedText })}
                    />
                    <button
                      type="button"
                      className="plain"
                      onClick={() => setRows(rows.filter((_, n) => n !== i))}
                    >
                      Remove
                    </button>
                  </li>
                ))}
              </ol>
            )}
            <Tick label="The post kept moving at the highest pull" checked={movedOn} onTick={setMovedOn} />
            <p className="actions">
              {session.data?.scale && (
                <Button onClick={() => void read()} disabled={reading}>
                  {reading ? "Loading…" : "Read the scale"}
                </Button>
              )}
              <Button onClick={() => add(0, nothing[0] ?? "")}>Record a pull test</Button>
              <Button className="strong" disabled={rows.length < LEAST} onClick={save}>
                Calculate
              </Button>
            </p>
            <p role="status">{said}</p>
          </>
        )
      )}
    </section>
  );
}
