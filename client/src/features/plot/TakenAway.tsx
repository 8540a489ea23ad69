import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import { useEffect, useRef, useState } from "react";

import type { Garden } from "../../api/client";

const STAYS_MS = 9000;

/** Says what was taken away just now, with the way back at hand. */
export function TakenAway({ garden, onUndo }: { garden: Garden; onUndo: () => void }) {
  const count = garden.beds.length + garden.structures.length + garden.features.length;
  const before = useRef(count);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    if (count !== before.current)
      // what an undo takes away is not said: it was asked for, and the redo stands ready
      setSaid(count < before.current && garden.redo === null ? garden.undo : null);
    before.current = count;
  }, [count, garden.undo, garden.redo]);
  return (
    <Snackbar
      open={said !== null}
      message={said}
      autoHideDuration={STAYS_MS}
      anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
      onClose={(_, why) => why !== "clickaway" && setSaid(null)}
      action={
        <Button
          onClick={() => {
            setSaid(null);
            onUndo();
          }}
        >
          bring it back
        </Button>
      }
    />
  );
}
