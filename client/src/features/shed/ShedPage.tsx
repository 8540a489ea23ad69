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
import { say } from "../../texts/say";

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
  if (!garden.data || !shed.data || !catalogue.data)
    return <p className="page quiet">{say("common.loading")}</p>;
  const mayEdit = garden.data.role !== "read";
  const { rows } = shed.data;
  const put = async (edit: Edit, words: string) => {
    try {
      await askEdits(id, [edit], words);
      setOpen(null);
      setRefusal("");
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : say("shed.theServerDidNotAnswerNothing"));
    }
  };
  const keep = (row: Schemas["StockRow"] | null, change: StockDraft) =>
    put(
      row
        ? { kind: "stock", act: "change", key: row.key, revision: row.revision, change }
        : { kind: "stock", act: "add", key: "stock", change },
      say("shed.inTheShed", { name: change.name }),
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
                say("shed.outOfTheShed", { name: row.fields.name }),
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
        <h1>{say("shed.shed")}</h1>
        <p className="lead">
          {rows.length === 0 ? say("shed.theShedIsEmptyAscentUses") : say("shed.ascentUsesPartsFromTheShed")}
        </p>
        {mayEdit && (
          <p className="noprint actions">
            <Button onClick={() => setOpen("")} disabled={open === ""}>
              {say("shed.addByForm")}
            </Button>
            <Button href={`/api/gardens/${id}/tables/shed.csv`}>{say("shed.saveAsCsv")}</Button>
            <Button onClick={() => window.print()}>{say("shed.print")}</Button>
          </p>
        )}
        {mayEdit && <StockLine garden={id} />}
        {open === "" && form(null)}
        {rows.length > 0 && (
          <Table className="stocked" size="small">
            <TableHead>
              <TableRow>
                <TableCell>{say("shed.thing")}</TableCell>
                <TableCell align="right">{say("shed.free")}</TableCell>
                <TableCell align="right">{say("shed.of")}</TableCell>
                <TableCell>{say("shed.state")}</TableCell>
                <TableCell>{say("shed.builtInto")}</TableCell>
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
          <p role="alert">{say("shed.cannotBeRead", { things: shed.data.unreadable.join(", ") })}</p>
        )}
      </main>
    </>
  );
}
