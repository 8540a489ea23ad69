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

/** A bed by name, size and soil; everything but the name is filled in. */
export function NewBed({ garden, open }: Props) {
  const queries = useQueryClient();
  const catalogue = useCatalogue();
  const [shown, setShown] = useState(open);
  const [name, setName] = useState("");
  const [size, setSize] = useState({ length: 3.6, width: 1.2 });
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
  const add = async () => {
    try {
      const body = { name: name.trim(), ...size, soil };
      queries.setQueryData(["garden", garden.id], await taken(api.POST("/api/gardens/{garden_id}/beds", { params: { path: { garden_id: garden.id } }, body })));
      setShown(false);
      setName("");
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : "The server did not answer.");
    }
  };
  const written = (value: number) => (garden.units === "metric" ? `${value.toFixed(2)} m` : `${(value / 0.0254).toFixed(0)} in`);
  return (
    <form
      className="bedrow"
      style={{ gridTemplateColumns: "repeat(auto-fit, minmax(150px, 1fr))", alignItems: "end" }}
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <div className="field">
        <label htmlFor="bed-name">Name of the bed</label>
        <input id="bed-name" className="input" value={name} maxLength={120} required onChange={(event) => setName(event.target.value)} />
      </div>
      {(["length", "width"] as const).map((side) => (
        <QuantityField
          key={side}
          label={side === "length" ? "Length" : "Width"}
          text={written(size[side])}
          value={size[side]}
          kind="length"
          system={garden.units}
          low={side === "length" ? 0.3 : 0.2}
          high={side === "length" ? 60 : 20}
          onValue={(value) => setSize({ ...size, [side]: value })}
        />
      ))}
      <Pick label="Soil" value={soil} choices={catalogue.data?.soils ?? []} onPick={setSoil} />
      <Button type="submit">Add the bed</Button>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </form>
  );
}
