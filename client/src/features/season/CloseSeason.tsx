import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";

import { Refused, type Schemas } from "../../api/client";
import { useFresh } from "../../api/useFresh";
import { askGarden } from "../../queue/asks";
import { useUndoing } from "../../ui/useUndoing";
import { say } from "../../texts/say";

interface Props {
  garden: number;
  closing: Schemas["ClosingReport"];
}

type Still = Schemas["StillReport"];

const refOf = (each: Still) => `${each.structure} ${each.planting}`;

/** The end of a season: what still grows or stands is said first; what grew is kept for the rotation. */
export function CloseSeason({ garden, closing }: Props) {
  const fresh = useFresh();
  const [asking, setAsking] = useState(false);
  const [closed, setClosed] = useState(0);
  const [said, setSaid] = useState("");
  const [ticks, setTicks] = useState<Record<string, boolean>>({});
  const isCleared = (each: Still) => ticks[refOf(each)] ?? each.cleared;
  const cleared = new Map<string, string[]>();
  for (const each of closing.still)
    if (each.planting && isCleared(each))
      cleared.set(each.structure, [...(cleared.get(each.structure) ?? []), each.planting]);
  const { undo, refusal } = useUndoing(garden);
  const close = async () => {
    setAsking(false);
    setSaid("");
    try {
      await askGarden(
        garden,
        "/year/close",
        { year: closing.year, cleared: Object.fromEntries(cleared) },
        say("season.seasonClosed", { year: closing.year }),
      );
      setClosed(closing.year);
    } catch (error) {
      setSaid(error instanceof Refused ? error.message : say("season.noAnswerFromTheServerNothing"));
    }
    await fresh.everything();
  };
  return (
    <div className="yearmore noprint">
      <Button onClick={() => setAsking(true)}>{say("season.closeSeason", { year: closing.year })}</Button>
      {closed > 0 && (
        <p role="status">
          {say("season.seasonIsClosed", { closed })}{" "}
          <button
            type="button"
            className="plain"
            onClick={() => {
              setClosed(0);
              undo();
            }}
          >
            {say("season.undoClosingSeason", { closed })}
          </button>
        </p>
      )}
      {(said || refusal) && (
        <p role="alert" className="refusal">
          {said || refusal}
        </p>
      )}
      <Dialog open={asking} onClose={() => setAsking(false)}>
        <DialogTitle>{say("season.closeSeason2", { year: closing.year })}</DialogTitle>
        <DialogContent>
          {!closing.begun && <p>{say("season.nothingOfSeasonHasBegunTo", { year: closing.year })}</p>}
          {closing.still.length > 0 && (
            <>
              <p>
                <strong>{say("season.theseAreNotOverTheWeek")}</strong>
              </p>
              {closing.still.map((each) =>
                each.planting ? (
                  <FormControlLabel
                    key={each.words}
                    control={
                      <Checkbox
                        checked={isCleared(each)}
                        onChange={(event) => setTicks({ ...ticks, [refOf(each)]: event.target.checked })}
                      />
                    }
                    label={each.words}
                  />
                ) : (
                  <p key={each.words}>{each.words}</p>
                ),
              )}
            </>
          )}
          <p>{say("season.whatGrewOnEachBedIs", { year: closing.year + 1 })}</p>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)}>{say("common.cancel")}</Button>
          <Button onClick={() => void close()}>{say("season.closeSeason", { year: closing.year })}</Button>
        </DialogActions>
      </Dialog>
    </div>
  );
}
