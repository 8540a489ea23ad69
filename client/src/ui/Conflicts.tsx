import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";

import type { Schemas } from "../api/client";
import { say } from "../texts/say";

type Thing = Schemas["ThingConflict"];

interface Props {
  things: readonly Thing[];
  mineFirst?: (kind: string, key: string, path: string) => boolean;
  onSettle: (keep: (kind: string, key: string, path: string) => boolean) => void;
}

const spot = (kind: string, key: string, path: string) => `${kind}/${key}/${path}`;

/** Someone else saved meanwhile: both versions side by side, field by field, to pick from. */
export function Conflicts({ things, mineFirst = () => true, onSettle }: Props) {
  const fields = things.flatMap((thing) => thing.differences.map((field) => ({ thing, field })));
  const [theirs, setTheirs] = useState<ReadonlySet<string>>(
    () =>
      new Set(
        fields
          .filter(({ thing, field }) => !mineFirst(thing.kind, thing.key, field.path))
          .map(({ thing, field }) => spot(thing.kind, thing.key, field.path)),
      ),
  );
  const pick = (where: string, mine: boolean) =>
    setTheirs((now) => {
      const next = new Set(now);
      if (mine) next.delete(where);
      else next.add(where);
      return next;
    });
  const gone = things.filter((thing) => thing.revision === null);
  return (
    <section className="conflict" role="alert" aria-label={say("ui.someoneElseSavedMeanwhile")}>
      <p>
        <strong>{say("ui.someoneElseSavedMeanwhile2")}</strong> {say("ui.nothingOfYoursIsLostPick")}
      </p>
      {gone.map((thing) => (
        <p key={thing.key}>{say("ui.wasRemovedMeanwhileYourChangeCannot", { name: thing.name })}</p>
      ))}
      {fields.length > 0 && (
        <Table className="picks">
          <TableHead>
            <TableRow>
              <TableCell>{say("ui.field")}</TableCell>
              <TableCell>{say("ui.theirs")}</TableCell>
              <TableCell>{say("ui.mine")}</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {fields.map(({ thing, field }) => {
              const where = spot(thing.kind, thing.key, field.path);
              const label = things.length > 1 ? `${thing.name}: ${field.label}` : field.label;
              return (
                <TableRow key={where}>
                  <TableCell component="th" scope="row">
                    {label}
                  </TableCell>
                  {[false, true].map((mine) => {
                    const value = mine ? field.after : field.before;
                    return (
                      <TableCell key={String(mine)}>
                        <FormControlLabel
                          label={value}
                          control={
                            <Radio
                              name={where}
                              checked={theirs.has(where) !== mine}
                              onChange={() => pick(where, mine)}
                              slotProps={{
                                input: { "aria-label": `${label}, ${mine ? "mine" : "theirs"}: ${value}` },
                              }}
                            />
                          }
                        />
                      </TableCell>
                    );
                  })}
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      )}
      <p className="actions">
        <Button onClick={() => onSettle((kind, key, path) => !theirs.has(spot(kind, key, path)))}>
          {say("ui.saveThis")}
        </Button>
        <button type="button" className="plain" onClick={() => onSettle(() => true)}>
          {say("ui.keepAllOfMine")}
        </button>
        <button type="button" className="plain" onClick={() => onSettle(() => false)}>
          {say("ui.useAllOfTheirs")}
        </button>
      </p>
    </section>
  );
}
