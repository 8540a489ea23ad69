import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import { useState } from "react";
import { useNavigate } from "react-router";

import { type Edit, type Garden, Refused, type Schemas } from "../../api/client";
import { askEdits } from "../../queue/asks";
import { Currency } from "../../ui/Currency";
import { type FrostDays, Frosts } from "../../ui/Frosts";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { useAfterReading } from "../../ui/useAfterReading";

interface Props {
  garden: Garden;
  catalogue: Schemas["Catalogue"];
  onSkip: () => void;
}

type Sized = { value: number; text: string };
const START: Record<"metric" | "imperial", { length: Sized; width: Sized }> = {
  metric: { length: { value: 3.6, text: "3.60 m" }, width: { value: 1.2, text: "1.20 m" } },
  imperial: { length: { value: 3.6576, text: "12 ft" }, width: { value: 1.2192, text: "4 ft" } },
};
const UNITS = [
  { key: "metric", name: "metres" },
  { key: "imperial", name: "feet and inches" },
];

/**
 * An empty garden's start: where it is, how the wind blows, the first bed. Everything is filled in and can be
 * skipped.
 */
export function Welcome({ garden, catalogue, onSkip }: Props) {
  const navigate = useNavigate();
  const { fields, written } = garden.place;
  const [name, setName] = useState(fields.name);
  // until one is picked here, the units are the garden's own, which the bar may change meanwhile
  const [picked, setPicked] = useState<Garden["units"] | null>(null);
  const units = picked ?? garden.units;
  const [latitude, setLatitude] = useState<Sized>({ value: fields.latitude, text: written.latitude ?? "" });
  const [frosts, setFrosts] = useState<FrostDays>({
    last_frost: fields.last_frost ?? null,
    first_frost: fields.first_frost ?? null,
  });
  const [currency, setCurrency] = useState(fields.currency);
  const [exposure, setExposure] = useState(fields.exposure);
  const [bed, setBed] = useState("First bed");
  const [soil, setSoil] = useState("firm_loam");
  const [sized, setSized] = useState<Partial<(typeof START)["metric"]>>({});
  const size = { ...START[units], ...sized };
  const [refusal, setRefusal] = useState("");
  const begin = async (thenPlan: boolean) => {
    const place: Schemas["PlaceChange"] = {
      name: name.trim() || fields.name,
      ...(picked ? { units: picked } : {}),
      latitude: latitude.value,
      currency,
      exposure,
      ...frosts,
    };
    const edits: Edit[] = [
      { kind: "place", change: place },
      {
        kind: "bed",
        act: "add",
        key: "bed",
        change: { name: bed.trim() || "First bed", length: size.length.value, width: size.width.value, soil },
      },
    ];
    try {
      const out = await askEdits(garden.id, edits, `${place.name ?? ""} begun`);
      if (thenPlan && out.made[0]) await navigate(`/gardens/${garden.id}/beds/${out.made[0]}/new`);
    } catch (error) {
      setRefusal(
        error instanceof Refused ? error.message : "The server did not answer; nothing was saved. Try again.",
      );
    }
  };
  const submit = useAfterReading(() => void begin(true));
  const sizes: ["length" | "width", string][] = [
    ["length", "Length"],
    ["width", "Width"],
  ];
  return (
    <main className="page welcome">
      <h1>A new garden</h1>
      <p className="lead">
        Three short steps, already filled in. Change what does not fit. You can skip any of it.
      </p>
      <form aria-label="A new garden" onSubmit={(event) => void submit(event)}>
        <section aria-label="Where">
          <h2>Where it is</h2>
          <label className="row">
            <span className="label">Garden</span>
            <input
              className="input"
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Pick
            label="Measured in"
            value={units}
            choices={UNITS}
            onPick={(key) => {
              setPicked(key as "metric");
              setSized({});
            }}
          />
          <Currency value={currency} onPick={setCurrency} />
          <QuantityRow
            label="Latitude"
            text={latitude.text}
            value={latitude.value}
            kind="bearing"
            system={units}
            low={-66}
            high={66}
            onValue={(value, text) => setLatitude({ value, text })}
          />
          <Frosts value={frosts} latitude={latitude.value} onFrosts={setFrosts} />
        </section>
        <section aria-label="Wind">
          <h2>How windy it is</h2>
          <RadioGroup
            aria-label="Exposure"
            value={exposure}
            onChange={(event) => setExposure(event.target.value)}
          >
            {catalogue.exposures.map((row) => (
              <FormControlLabel key={row.key} value={row.key} label={row.name} control={<Radio />} />
            ))}
          </RadioGroup>
        </section>
        <section aria-label="First bed">
          <h2>The first bed</h2>
          <label className="row">
            <span className="label">Name</span>
            <input
              className="input"
              value={bed}
              maxLength={120}
              onChange={(event) => setBed(event.target.value)}
            />
          </label>
          {sizes.map(([side, label]) => (
            <QuantityRow
              key={side}
              label={label}
              text={size[side].text}
              value={size[side].value}
              kind="length"
              system={units}
              low={catalogue.bounds[`bed.${side}`]?.low}
              high={catalogue.bounds[`bed.${side}`]?.high}
              onValue={(value, text) => setSized((now) => ({ ...now, [side]: { value, text } }))}
            />
          ))}
          <Pick label="Soil" value={soil} choices={catalogue.soils} onPick={setSoil} />
        </section>
        <p className="actions">
          <Button type="submit" className="strong">
            Plan its first support
          </Button>
          <button type="button" className="plain" onClick={() => void begin(false)}>
            Add the bed only
          </button>
          <button type="button" className="plain" onClick={onSkip}>
            Skip these steps
          </button>
        </p>
        {refusal && (
          <p role="alert" className="refusal">
            {refusal}
          </p>
        )}
      </form>
    </main>
  );
}
