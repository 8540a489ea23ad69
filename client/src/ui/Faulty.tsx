import Button from "@mui/material/Button";
import { useState } from "react";
import { Link } from "react-router";

import { Refused } from "../api/client";
import { useFresh } from "../api/useFresh";
import { askGarden } from "../queue/asks";
import { NotHere } from "./NotHere";

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
          ? (failed.problems[0]?.allowed ?? "It could not be undone.")
          : "The server did not answer.",
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
      <h1>{status ? "This cannot be shown now" : "The server does not answer"}</h1>
      <p>
        {words ? `${words.charAt(0).toUpperCase()}${words.slice(1)}. ` : ""}
        {status
          ? "Nothing is lost: everything saved is still there."
          : "Your changes are stored on this device and will be sent when the server answers."}
      </p>
      <p className="actions">
        <Button className="strong" onClick={again}>
          Try again
        </Button>
        {garden > 0 && status >= 500 && (
          <button type="button" className="plain" onClick={() => void undo()}>
            Undo my last change
          </button>
        )}
        <Link to="/account">Other gardens</Link>
      </p>
      {said && (
        <p role="alert" className="refusal">
          {said}
        </p>
      )}
    </main>
  );
}
