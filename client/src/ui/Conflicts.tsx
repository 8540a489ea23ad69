import Button from "@mui/material/Button";
import { useState } from "react";

import type { Schemas } from "../api/client";

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
    <section className="conflict" role="alert" aria-label="Someone else saved meanwhile">
      <p>
        <strong>Someone else saved meanwhile.</strong> Nothing of yours is lost: pick what stays.
      </p>
      {gone.map((thing) => (
        <p key={thing.key}>
          {thing.name} was taken away meanwhile; your change of it cannot be kept. Undo in the history brings
          it back.
        </p>
      ))}
      {fields.length > 0 && (
        <table className="picks">
          <thead>
            <tr>
              <th>Field</th>
              <th>Theirs</th>
              <th>Mine</th>
            </tr>
          </thead>
          <tbody>
            {fields.map(({ thing, field }) => {
              const where = spot(thing.kind, thing.key, field.path);
              const label = things.length > 1 ? `${thing.name}: ${field.label}` : field.label;
              return (
                <tr key={where}>
                  <th scope="row">{label}</th>
                  {[false, true].map((mine) => (
                    <td key={String(mine)}>
                      <label>
                        <input
                          type="radio"
                          name={where}
                          checked={theirs.has(where) !== mine}
                          onChange={() => pick(where, mine)}
                          aria-label={`${label}, ${mine ? "mine" : "theirs"}: ${mine ? field.after : field.before}`}
                        />{" "}
                        {mine ? field.after : field.before}
                      </label>
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <p className="actions">
        <Button onClick={() => onSettle((kind, key, path) => !theirs.has(spot(kind, key, path)))}>
          Save this
        </Button>
        <button type="button" className="plain" onClick={() => onSettle(() => true)}>
          keep all of mine
        </button>
        <button type="button" className="plain" onClick={() => onSettle(() => false)}>
          take all of theirs
        </button>
      </p>
    </section>
  );
}
