import Button from "@mui/material/Button";
import { useState } from "react";

import { api, Refused, type Schemas, taken } from "../api/client";
import { askEdits } from "../queue/asks";
import { sentence } from "./sentence";

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
      await askEdits(garden, [{ kind: "stock", act: "add", key: "stock", change }], `${line}: in the shed`);
      setAdded((all) => [...all, `${change.count ?? 1} × ${change.name ?? ""}`]);
      setLine("");
      setRefusal("");
    } catch (error) {
      const problem = error instanceof Refused ? error.problems[0] : undefined;
      setRefusal(
        problem
          ? `‘${line}’ cannot be used. ${sentence(problem.allowed)}`
          : "The server did not answer. Nothing was saved. Try again.",
      );
    }
  };
  return (
    <form
      className="stockline"
      aria-label="Add what you have in one line"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <label className="row">
        <span className="label">You have</span>
        <input
          className="input"
          value={line}
          maxLength={200}
          placeholder="20 bamboo canes 6 ft, 2 years old"
          aria-invalid={refusal !== ""}
          onChange={(event) => setLine(event.target.value)}
        />
      </label>
      <Button type="submit" disabled={!line.trim()}>
        Add to the shed
      </Button>
      {added.length > 0 && (
        <p role="status" className="quiet hint">
          Added: {added.join("; ")}.
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
