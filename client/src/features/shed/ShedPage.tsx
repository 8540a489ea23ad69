import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";
import { useParams } from "react-router";

import { type Edit, Refused, type Schemas } from "../../api/client";
import { useCatalogue, useGarden, useShed } from "../../api/queries";
import { askEdits } from "../../queue/asks";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { StockLine } from "../../ui/StockLine";
import { StockForm, type StockDraft } from "./StockForm";

/** What is in the shed: what it is, how much of it is free, how long it lasts; new things are put in. */
export function ShedPage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const shed = useShed(id, garden.data?.number, garden.data?.units);
  const catalogue = useCatalogue(garden.data?.units);
  const [open, setOpen] = useState<string | null>(null);
  const [refusal, setRefusal] = useState("");
  const failed = garden.error ?? shed.error ?? catalogue.error;
  if (failed) return <Faulty error={failed} garden={id} />;
  if (!garden.data || !shed.data || !catalogue.data) return <p className="page quiet">Loading…</p>;
  const mayEdit = garden.data.role !== "read";
  const { rows } = shed.data;
  const put = async (edit: Edit, words: string) => {
    try {
      await askEdits(id, [edit], words);
      setOpen(null);
      setRefusal("");
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : "The server did not answer; nothing was saved.");
    }
  };
  const keep = (row: Schemas["StockRow"] | null, change: StockDraft) =>
    put(
      row
        ? { kind: "stock", act: "change", key: row.key, revision: row.revision, change }
        : { kind: "stock", act: "add", key: "stock", change },
      `${change.name}: in the shed`,
    );
  const form = (row: Schemas["StockRow"] | null) => (
    <StockForm
      catalogue={catalogue.data}
      units={garden.data.units}
      row={row}
      refusal={refusal}
      onKeep={(change) => void keep(row, change)}
      onRemove={
        row
          ? () =>
              void put(
                { kind: "stock", act: "remove", key: row.key, change: {} },
                `${row.fields.name} out of the shed`,
              )
          : undefined
      }
      onClose={() => {
        setOpen(null);
        setRefusal("");
      }}
    />
  );
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page shed">
        <h1>Shed</h1>
        <p className="lead">
          {rows.length === 0
            ? "The shed is empty. Ascent uses parts from the shed first and leaves them off the shopping list."
            : "Ascent uses parts from the shed first and leaves them off the shopping list. When you take a support down, its parts return here, one season older."}
        </p>
        {mayEdit && (
          <p className="noprint actions">
            <Button onClick={() => setOpen("")} disabled={open === ""}>
              Add by form
            </Button>
            <Button href={`/api/gardens/${id}/tables/shed.csv`}>Save as CSV</Button>
            <Button onClick={() => window.print()}>Print</Button>
          </p>
        )}
        {mayEdit && <StockLine garden={id} />}
        {open === "" && form(null)}
        {rows.length > 0 && (
          <Table className="stocked" size="small">
            <TableHead>
              <TableRow>
                <TableCell>Thing</TableCell>
                <TableCell align="right">Free</TableCell>
                <TableCell align="right">Of</TableCell>
                <TableCell>State</TableCell>
                <TableCell>Built into</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map((row) => [
                <TableRow key={row.key} data-planned={row.planned} selected={row.key === open}>
                  <TableCell>
                    {mayEdit ? (
                      <button
                        type="button"
                        className="plain thing"
                        aria-expanded={row.key === open}
                        onClick={() => setOpen(row.key === open ? null : row.key)}
                      >
                        {row.fields.name}
                      </button>
                    ) : (
                      <strong>{row.fields.name}</strong>
                    )}
                    <div className="quiet">{row.words}</div>
                  </TableCell>
                  <TableCell align="right">{row.planned ? row.free_text : "–"}</TableCell>
                  <TableCell align="right">{row.amount_text}</TableCell>
                  <TableCell>{row.state}</TableCell>
                  <TableCell>{row.used_by.join(", ")}</TableCell>
                </TableRow>,
                row.key === open && (
                  <TableRow key={`${row.key}-form`}>
                    <TableCell colSpan={5}>{form(row)}</TableCell>
                  </TableRow>
                ),
              ])}
            </TableBody>
          </Table>
        )}
        {shed.data.unreadable.length > 0 && (
          <p role="alert">Cannot be read: {shed.data.unreadable.join(", ")}.</p>
        )}
      </main>
    </>
  );
}
