import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import { say } from "../../texts/say";

const STAYS_MS = 9000;

interface Props {
  said: string | null;
  onUndo: () => void;
  onClose: () => void;
}

/** Says what was removed just now, with the way back at hand. */
export const TakenAway = ({ said, onUndo, onClose }: Props) => (
  <Snackbar
    open={said !== null}
    message={said}
    autoHideDuration={STAYS_MS}
    anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
    onClose={(_, why) => {
      if (why !== "clickaway") onClose();
    }}
    action={<Button onClick={onUndo}>{say("plot.undoTheRemoval")}</Button>}
  />
);
