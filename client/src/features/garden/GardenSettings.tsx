import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, Refused, taken, type Schemas } from "../../api/client";
import { useCatalogue } from "../../api/queries";
import { DayOfYear } from "../../ui/DayOfYear";
import { Pick } from "../../ui/Pick";
import { QuantityField } from "../../ui/QuantityField";

type Change = Schemas["GardenChange"];

/** What the whole garden shares: name, wind, frosts and money. Each change is kept as it is made. */
export function GardenSettings({ garden }: { garden: Schemas["GardenOut"] }) {
  const queries = useQueryClient();
  const catalogue = useCatalogue();
  const [refusal, setRefusal] = useState("");
  const gusts = catalogue.data?.bounds["garden.design_gust"];
  const keep = async (body: Change) => {
    try {
      queries.setQueryData(["garden", garden.id], await taken(api.PATCH("/api/gardens/{garden_id}", { params: { path: { garden_id: garden.id } }, body })));
      await queries.invalidateQueries({ queryKey: ["gardens"] });
      setRefusal("");
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : "The server did not answer.");
    }
  };
  const written = (label: string, name: "name" | "currency") => (
    <label className="row">
      <span className="label">{label}</span>
      <input
        className="input"
        key={garden[name]}
        defaultValue={garden[name]}
        maxLength={name === "currency" ? 8 : 120}
        onBlur={(event) => event.target.value !== garden[name] && void keep({ [name]: event.target.value.trim() })}
        onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
      />
    </label>
  );
  return (
    <details className="settings noprint">
      <summary>About this garden</summary>
      <div className="settingsgrid">
        {written("Name", "name")}
        <Pick label="Exposure" value={garden.exposure} choices={catalogue.data?.exposures ?? []} onPick={(exposure) => void keep({ exposure })} />
        <Pick label="Gusts come" value={garden.climate} choices={catalogue.data?.climates ?? []} onPick={(climate) => void keep({ climate })} />
        <div className="row">
          <span className="label">Design gust</span>
          <span>
            <QuantityField label="Design gust at the plant" hideLabel text={garden.design_gust_text} value={garden.design_gust} kind="speed" exposure={garden.exposure} system={garden.units} low={gusts?.low} high={gusts?.high} onValue={(design_gust) => void keep({ design_gust })} />
            <span className="quiet hint">
              {garden.own_design_gust ? (
                <button type="button" className="plain" onClick={() => void keep({ design_gust: null })}>
                  back to the exposure’s own
                </button>
              ) : (
                "at the plant, once in ten seasons; from the exposure"
              )}
            </span>
          </span>
        </div>
        <DayOfYear label="Last frost" value={garden.last_frost} onDate={(last_frost) => void keep({ last_frost })} />
        <DayOfYear label="First frost" value={garden.first_frost} onDate={(first_frost) => void keep({ first_frost })} />
        {written("Currency", "currency")}
      </div>
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </details>
  );
}
