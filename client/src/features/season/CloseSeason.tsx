import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useState } from "react";

import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";

/** The end of a season: what grew is kept for the rotation, and the next year is planned. */
export function CloseSeason({ garden, label }: { garden: number; label: string }) {
  const fresh = useFresh();
  const [asking, setAsking] = useState(false);
  const close = () => {
    setAsking(false);
    void askGarden(garden, "/year/close", {}, `season ${label} closed`).then(() => fresh.everything());
  };
  return (
    <p className="yearmore">
      <Button onClick={() => setAsking(true)}>Close the season</Button>
      <Dialog open={asking} onClose={() => setAsking(false)}>
        <DialogTitle>Close the season {label}?</DialogTitle>
        <DialogContent>
          What grew on each bed is written down for the rotation, and the year goes on by one. Structures
          stay, with the same crops on the same days until you change them. It can be undone.
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)}>Not yet</Button>
          <Button onClick={close}>Close it</Button>
        </DialogActions>
      </Dialog>
    </p>
  );
}
