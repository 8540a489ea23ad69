import Button from "@mui/material/Button";
import { useState } from "react";

import { Refused } from "../api/client";
import { useLineRead } from "../api/log";
import { useSettled } from "./useSettled";
import { sentence } from "./sentence";
import { say } from "../texts/say";
import { useLogging } from "./useLogging";

interface Props {
  garden: number;
  /** Key of the support or bed at which it is written, where there is one. */
  about: string;
  /** The part that is meant where the line names none. */
  member?: string;
}

/** What happened, in one line: told back while it is typed, saved whatever the line to the server does. */
export function LogLine({ garden, about, member = "" }: Props) {
  const [line, setLine] = useState("");
  const [saved, setSaved] = useState("");
  const log = useLogging(garden);
  const settled = useSettled(line);
  const read = useLineRead(garden, settled, about);
  const problem = read.error instanceof Refused ? read.error.problems[0] : undefined;
  const told = settled === line ? read.data : undefined;
  const save = () => {
    log(
      { line: line.trim(), structure: null, ...(about && { structure: about }), ...(member && { member }) },
      line.trim(),
    );
    setSaved(line.trim());
    setLine("");
  };
  return (
    <form
      className="logline-form noprint"
      aria-label={say("log.writeInTheLog")}
      onSubmit={(event) => {
        event.preventDefault();
        if (line.trim() && !(problem && settled === line)) save();
      }}
    >
      <label className="row">
        <span className="label">{member ? say("log.whatHappenedToThisPart") : say("log.whatHappened")}</span>
        <input
          className="input"
          value={line}
          maxLength={200}
          placeholder={member ? say("log.leansFourCentimetres") : say("log.sixPoundsOfTomatoes")}
          aria-invalid={problem !== undefined && settled === line}
          onChange={(event) => setLine(event.target.value)}
        />
      </label>
      <Button type="submit" variant="contained" disabled={!line.trim()}>
        {say("log.save")}
      </Button>
      <p role="status" className="quiet hint">
        {told
          ? say("log.told", {
              name: told.name,
              words: told.words,
              place: told.place || say("log.theGarden"),
              label: told.label,
            })
          : line === "" && saved
            ? say("log.saved", { line: saved })
            : ""}
      </p>
      {problem && settled === line && line !== "" && (
        <p role="alert" className="refusal">
          {say("log.cannotBeUsed", { line, allowed: sentence(problem.allowed) })}
        </p>
      )}
    </form>
  );
}
