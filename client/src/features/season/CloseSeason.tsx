import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useState } from "react";

import { Refused, type Schemas } from "../../api/client";
import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";
import { useUndoing } from "../../ui/useUndoing";

interface Props {
  garden: number;
  closing: Schemas["ClosingReport"];
}

/** The end of a season: what still grows or stands is said first; what grew is kept for the rotation. */
export function CloseSeason({ garden, closing }: Props) {
  const fresh = useFresh();
  const [asking, setAsking] = useState(false);
  const [closed, setClosed] = useState(0);
  const [said, setSaid] = useState("");
  const { undo, refusal } = useUndoing(garden);
  const close = async () => {
    setAsking(false);
    setSaid("");
    try {
      await askGarden(garden, "/year/close", { year: closing.year }, `season ${closing.year} closed`);
      setClosed(closing.year);
    } catch (error) {
      setSaid(
        error instanceof Refused
          ? error.message
          : "No answer from the server. Nothing was closed. Try again.",
      );
    }
    await fresh.everything();
  };
  return (
    <div className="yearmore noprint">
      <Button onClick={() => setAsking(true)}>Close season {closing.year}</Button>
      {closed > 0 && (
        <p role="status">
          Season {closed} is closed.{" "}
          <button
            type="button"
            className="plain"
            onClick={() => {
              setClosed(0);
              undo();
            }}
          >
            Undo closing season {closed}
          </button>
        </p>
      )}
      {(said || refusal) && (
        <p role="alert" className="refusal">
          {said || refusal}
        </p>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)}>
        <DialogTitle>Close season {closing.year}?</DialogTitle>
        <DialogContent>
          {!closing.begun && (
            <p>Nothing of season {closing.year} has begun to grow. Nothing of it is kept.</p>
          )}
          {closing.still.length > 0 && (
            <>
              <p>
                <strong>
                  These are not over. The week and the storm watch no longer show them once the season is
                  closed.
                </strong>
              </p>
              <ul>
                {closing.still.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
            </>
          )}
          <p>
            What grew on each bed is kept for the rotation. The plan goes on to {closing.year + 1}. Structures
            stay, with the same crops on the same days until you change them. You can undo it.
          </p>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)}>Cancel</Button>
          <Button onClick={() => void close()}>Close season {closing.year}</Button>
        </DialogActions>
      </Dialog>
    </div>
  );
}
