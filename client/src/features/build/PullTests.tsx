import Button from "@mui/material/Button";
import { useState } from "react";

import type { Building } from "../../api/building";
import { useSession } from "../../api/queries";
import { Choices } from "../../ui/Choices";
import { Pick } from "../../ui/Pick";
import { QuantityField } from "../../ui/QuantityField";
import { Tick } from "../../ui/Tick";
import { useScale } from "../../ui/useScale";
import type { Pull, Written } from "./useRecord";
import { say } from "../../texts/say";

interface Row {
  pull: number;
  pullText: string;
  moved: number;
  movedText: string;
}

const STATES = [
  ["dry", say("build.dry")],
  ["moist", say("build.moist")],
  ["wet", say("build.wet")],
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
  const scale = useScale(building.garden);
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
    const hung = await scale.read();
    if (typeof hung === "string") {
      setSaid(hung);
      return;
    }
    add(hung.pull, hung.text);
    setSaid(say("build.nowWriteHowFarThePost", { name: hung.name, text: hung.text }));
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
                  {say("build.useThisResultForThisBed")}
                </Button>
              )}
              <Button onClick={() => written.forgetPull(test.key)}>{say("build.deleteThisPullTest")}</Button>
            </p>
          )}
        </article>
      ))}
      {pulls.used && building.may_edit && (
        <p className="actions">
          <Button onClick={() => written.useForBed(null)}>{say("build.useTheTableForThisBed")}</Button>
        </p>
      )}
      {pulls.posts.length === 0 ? (
        <p>{say("build.thisSupportHasNoPostIn")}</p>
      ) : (
        building.may_edit && (
          <>
            <h2>{say("build.pullAPost")}</h2>
            <p>{say("build.hookAHangingScaleRoundThe")}</p>
            <div className="pullform">
              <Pick
                label={say("build.post")}
                value={member}
                choices={pulls.posts.map(([key, name]) => ({ key, name }))}
                onPick={setMember}
              />
              <QuantityField
                label={say("build.heightOfThePull")}
                text={height[1]}
                value={height[0]}
                kind="length"
                system={units}
                low={0.2}
                high={3}
                onValue={(value, text) => setHeight([value, text])}
              />
              <Choices label={say("build.stateOfTheSoil")} value={state} choices={STATES} onPick={setState} />
            </div>
            {rows.length > 0 && (
              <ol className="readings">
                {rows.map((row, i) => (
                  <li key={i}>
                    <QuantityField
                      label={say("build.pull", { i: i + 1 })}
                      text={row.pullText}
                      value={row.pull}
                      kind="force"
                      system={units}
                      low={0}
                      high={5000}
                      onValue={(pull, pullText) => change(i, { pull, pullText })}
                    />
                    <QuantityField
                      label={say("build.moved", { i: i + 1 })}
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
                      {say("build.remove")}
                    </button>
                  </li>
                ))}
              </ol>
            )}
            <Tick label={say("build.thePostKeptMovingAtThe")} checked={movedOn} onTick={setMovedOn} />
            <p className="actions">
              {session.data?.scale && (
                <Button onClick={() => void read()} disabled={scale.reading}>
                  {scale.reading ? say("common.loading") : say("build.readTheScale")}
                </Button>
              )}
              <Button onClick={() => add(0, nothing[0] ?? "")}>{say("build.recordAPullTest")}</Button>
              <Button className="strong" disabled={rows.length < LEAST} onClick={save}>
                {say("build.calculate")}
              </Button>
            </p>
            <p role="status">{said}</p>
          </>
        )
      )}
    </section>
  );
}
