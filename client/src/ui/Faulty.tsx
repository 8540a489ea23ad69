import Button from "@mui/material/Button";
import { useState } from "react";
import { Link } from "react-router";

import { Refused } from "../api/client";
import { useFresh } from "../api/useFresh";
import { askGarden } from "../queue/asks";
import { NotHere } from "./NotHere";
import { say } from "../texts/say";

interface Props {
  error: unknown;
  /** The garden whose last change may be undone, 0 where that is not known. */
  garden?: number;
}

/** What stands instead of a page that could not be had: not there, not now, or a fault of ours. */
export function Faulty({ error, garden = 0 }: Props) {
  const fresh = useFresh();
  const [said, setSaid] = useState("");
  const status = error instanceof Refused ? error.status : 0;
  if (status === 404 || status === 401) return <NotHere />;
  const again = () => void fresh.everything();
  const undo = async () => {
    try {
      await askGarden(garden, "/undo", {}, "undo");
      setSaid("");
    } catch (failed) {
      setSaid(
        failed instanceof Refused
          ? (failed.problems[0]?.allowed ?? say("ui.itCouldNotBeUndone"))
          : say("common.theServerDidNotAnswer"),
      );
    }
    again();
  };
  const words =
    error instanceof Refused
      ? error.problems.map((problem) => `${problem.given}: ${problem.allowed}`).join("; ")
      : "";
  return (
    <main className="page">
      <h1>{status ? say("ui.thisCannotBeShownNow") : say("ui.theServerDoesNotAnswer")}</h1>
      <p>
        {words ? `${words.charAt(0).toUpperCase()}${words.slice(1)}. ` : ""}
        {status ? say("ui.nothingIsLostEverythingSavedIs") : say("ui.yourChangesAreStoredOnThis")}
      </p>
      <p className="actions">
        <Button className="strong" onClick={again}>
          {say("ui.tryAgain")}
        </Button>
        {garden > 0 && status >= 500 && (
          <button type="button" className="plain" onClick={() => void undo()}>
            {say("ui.undoMyLastChange")}
          </button>
        )}
        <Link to="/account">{say("ui.otherGardens")}</Link>
      </p>
      {said && (
        <p role="alert" className="refusal">
          {said}
        </p>
      )}
    </main>
  );
}
