import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, taken, type Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { Pick } from "../../ui/Pick";
import { QuantityField } from "../../ui/QuantityField";

interface Props {
  garden: Schemas["GardenOut"];
  open: boolean;
}

const KINDS = [
  { key: "in-ground", name: "in the ground" },
  { key: "raised", name: "raised, with boards" },
];
const START = {
  metric: { length: { value: 3.6, text: "3.60 m" }, width: { value: 1.2, text: "1.20 m" }, fill_depth: { value: 0.3, text: "0.30 m" } },
  imperial: { length: { value: 3.6576, text: "12 ft" }, width: { value: 1.2192, text: "4 ft" }, fill_depth: { value: 0.3048, text: "1 ft" } },
};
const LABELS = { length: "Length", width: "Width", fill_depth: "Filled to" };

/** A bed by name, kind, size and soil; everything but the name is filled in. */
export function NewBed({ garden, open }: Props) {
  const queries = useQueryClient();
  const catalogue = useCatalogue();
  const [shown, setShown] = useState(open);
  const [name, setName] = useState("");
  const [kind, setKind] = useState("in-ground");
  const [size, setSize] = useState(START[garden.units]);
  const [soil, setSoil] = useState("firm_loam");
  const [refusal, setRefusal] = useState("");
  if (!shown)
    return (
      <p className="bedrow" style={{ display: "block" }}>
        <button type="button" className="plain" onClick={() => setShown(true)}>
          Add a bed
        </button>
      </p>
    );
  const raised = kind === "raised";
  const add = async () => {
    try {
      const body = { name: name.trim(), length: size.length.value, width: size.width.value, soil, kind: kind as "raised", fill_depth: raised ? size.fill_depth.value : 0 };
      queries.setQueryData(["garden", garden.id], await taken(api.POST("/api/gardens/{garden_id}/beds", { params: { path: { garden_id: garden.id } }, body })));
      setShown(false);
      setName("");
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : "The server did not answer.");
    }
  };
  const sides: (keyof typeof size)[] = raised ? ["length", "width", "fill_depth"] : ["length", "width"];
  return (
    <form
      className="newbed"
      aria-label="New bed"
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <h2>New bed</h2>
      <label className="row">
        <span className="label">Name</span>
        <input className="input" value={name} maxLength={120} required onChange={(event) => setName(event.target.value)} />
      </label>
      <Pick label="Kind" value={kind} choices={KINDS} onPick={setKind} />
      {sides.map((side) => (
        <div key={side} className="row">
          <span className="label" aria-hidden="true">
            {LABELS[side]}
          </span>
          <QuantityField label={LABELS[side]} hideLabel text={size[side].text} value={size[side].value} kind="length" system={garden.units} low={catalogue.data?.bounds[`bed.${side}`]?.low} high={catalogue.data?.bounds[`bed.${side}`]?.high} onValue={(value, text) => setSize({ ...size, [side]: { value, text } })} />
        </div>
      ))}
      <Pick label={raised ? "Soil below" : "Soil"} value={soil} choices={catalogue.data?.soils ?? []} onPick={setSoil} />
      <Button type="submit" sx={{ justifySelf: "start", mt: 1.5 }}>
        Add the bed
      </Button>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </form>
  );
}
