import Button from "@mui/material/Button";
import { useState } from "react";

import { api, Refused, type Schemas, taken } from "../api/client";
import { askEdits } from "../queue/asks";
import { sentence } from "./sentence";
import { say } from "../texts/say";

/** A thing for the shed in one line, as people say it: read by the server, added, and told back. */
export function StockLine({ garden }: { garden: number }) {
  const [line, setLine] = useState("");
  const [refusal, setRefusal] = useState("");
  const [added, setAdded] = useState<readonly string[]>([]);
  const add = async () => {
    try {
      const change = await taken<Schemas["StockChange"]>(
        api.POST("/api/gardens/{garden_id}/shed/line", {
          params: { path: { garden_id: garden } },
          body: { text: line },
        }),
      );
      await askEdits(
        garden,
        [{ kind: "stock", act: "add", key: "stock", change }],
        say("ui.inTheShed", { line }),
      );
      setAdded((all) => [...all, `${change.count ?? 1} × ${change.name ?? ""}`]);
      setLine("");
      setRefusal("");
    } catch (error) {
      const problem = error instanceof Refused ? error.problems[0] : undefined;
      setRefusal(
        problem
          ? say("ui.cannotBeUsed2", { line, allowed: sentence(problem.allowed) })
          : say("ui.theServerDidNotAnswerNothing"),
      );
    }
  };
  return (
    <form
      className="stockline"
      aria-label={say("ui.addWhatYouHaveInOne")}
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <label className="row">
        <span className="label">{say("ui.youHave")}</span>
        <input
          className="input"
          value={line}
          maxLength={200}
          placeholder={say("ui.n20BambooCanes6Ft2")}
          aria-invalid={refusal !== ""}
          onChange={(event) => setLine(event.target.value)}
        />
      </label>
      <Button type="submit" disabled={!line.trim()}>
        {say("ui.addToTheShed")}
      </Button>
      {added.length > 0 && (
        <p role="status" className="quiet hint">
          {say("ui.added", { things: added.join("; ") })}
        </p>
      )}
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </form>
  );
}
