import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import { useState } from "react";
import { useNavigate } from "react-router";

import { type Edit, type Garden, Refused, type Schemas } from "../../api/client";
import { askEdits } from "../../queue/asks";
import { Currency, UNSAID } from "../../ui/Currency";
import { type FrostDays, Frosts } from "../../ui/Frosts";
import { Pick } from "../../ui/Pick";
import { QuantityRow } from "../../ui/QuantityRow";
import { BedKindGlyph } from "./BedKindGlyph";
import { useAfterReading } from "../../ui/useAfterReading";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  catalogue: Schemas["Catalogue"];
  onSkip: () => void;
}

type Sized = { value: number; text: string };
type Size = "length" | "width" | "fill_depth";
type Kind = NonNullable<Schemas["BedChange"]["kind"]>;
type Units = Garden["units"];

const INCH = 0.0254;
const metres = (value: number): Sized => ({ value, text: `${value.toFixed(2)} m` });
const inches = (count: number): Sized => ({
  value: count * INCH,
  text: count % 12 ? say("plot.in", { count }) : say("plot.ft", { count: count / 12 }),
});
/** What a bed of a kind usually measures: length, width, and how deep it is filled. */
const USUAL: Record<Kind, Record<Units, readonly [Sized, Sized, Sized]>> = {
  "in-ground": {
    metric: [metres(3.6), metres(1.2), metres(0)],
    imperial: [inches(144), inches(48), inches(0)],
  },
  raised: {
    metric: [metres(2.4), metres(1.2), metres(0.28)],
    imperial: [inches(96), inches(48), inches(11)],
  },
  container: {
    metric: [metres(0.4), metres(0.4), metres(0.35)],
    imperial: [inches(16), inches(16), inches(14)],
  },
  "straw-bale": {
    metric: [metres(0.9), metres(0.45), metres(0.35)],
    imperial: [inches(36), inches(18), inches(14)],
  },
};
const FILL: Record<Kind, string> = {
  "in-ground": "raised_bed_mix",
  raised: "raised_bed_mix",
  container: "potting_mix",
  "straw-bale": "straw",
};
const DEPTH: Record<Kind, string> = {
  "in-ground": "",
  raised: say("plot.boardHeight"),
  container: "Depth",
  "straw-bale": "Height",
};
const NOT_KNOWN = "";
const SURELY = "loose_tilled"; // of no soil does a post need to go deeper
const MOST_ALIKE = 12;
const APART = 0.1; // of pots in a row [m]
const UNITS = [
  { key: "metric", name: say("plot.metres") },
  { key: "imperial", name: say("plot.feetAndInches") },
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
  const [paid, setPaid] = useState<string | null>(fields.currency === UNSAID ? null : fields.currency);
  const currency = paid ?? (units === "imperial" ? "$" : "€");
  const [exposure, setExposure] = useState(fields.exposure);
  const [bed, setBed] = useState(say("plot.firstBed"));
  const [kind, setKind] = useState<Kind>("in-ground");
  const [alike, setAlike] = useState(1);
  const [soil, setSoil] = useState("firm_loam");
  const [sized, setSized] = useState<Partial<Record<Size, Sized>>>({});
  const [length, width, fill_depth] = USUAL[kind][units];
  const size = { length, width, fill_depth, ...sized };
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
    const called = bed.trim() || say("plot.firstBed");
    const beds = Array.from({ length: alike }, (_, n): Edit => ({
      kind: "bed",
      act: "add",
      key: "bed",
      change: {
        name: n > 0 ? `${called} ${n + 1}` : called,
        kind,
        length: size.length.value,
        width: size.width.value,
        fill: FILL[kind],
        fill_depth: kind === "in-ground" ? 0 : size.fill_depth.value,
        soil: soil === NOT_KNOWN ? SURELY : soil,
        x: n * (size.length.value + APART),
      },
    }));
    const edits: Edit[] = [{ kind: "place", change: place }, ...beds];
    try {
      const out = await askEdits(garden.id, edits, say("plot.begun", { name: place.name ?? "" }));
      const [first, ...others] = out.made;
      const also = others.length > 0 ? `?also=${others.join(",")}` : "";
      if (thenPlan && first) await navigate(`/gardens/${garden.id}/beds/${first}/new${also}`);
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : say("plot.theServerDidNotAnswerNothing"));
    }
  };
  const submit = useAfterReading(() => void begin(true));
  const sizes: [Size, string][] = [
    ["length", say("plot.length")],
    ["width", say("plot.width")],
    ...(kind === "in-ground" ? [] : [["fill_depth", DEPTH[kind]] satisfies [Size, string]]),
  ];
  return (
    <main className="page welcome">
      <h1>{say("plot.aNewGarden")}</h1>
      <p className="lead">{say("plot.threeShortStepsAlreadyFilledIn")}</p>
      <form aria-label={say("plot.aNewGarden")} onSubmit={(event) => void submit(event)}>
        <section aria-label={say("plot.where")}>
          <h2>{say("plot.whereItIs")}</h2>
          <label className="row">
            <span className="label">{say("plot.garden")}</span>
            <input
              className="input"
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
            />
          </label>
          <Pick
            label={say("plot.measuredIn")}
            value={units}
            choices={UNITS}
            onPick={(key) => {
              setPicked(key as "metric");
              setSized({});
            }}
          />
          <Currency value={currency} onPick={setPaid} />
          <QuantityRow
            label={say("plot.latitude")}
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
        <section aria-label={say("plot.wind")}>
          <h2>{say("plot.howWindyItIs")}</h2>
          <RadioGroup
            aria-label={say("plot.exposure")}
            value={exposure}
            onChange={(event) => setExposure(event.target.value)}
          >
            {catalogue.exposures.map((row) => (
              <FormControlLabel key={row.key} value={row.key} label={row.name} control={<Radio />} />
            ))}
          </RadioGroup>
        </section>
        <section aria-label={say("plot.firstBed")}>
          <h2>{say("plot.theFirstBed")}</h2>
          <label className="row">
            <span className="label">{say("plot.name")}</span>
            <input
              className="input"
              value={bed}
              maxLength={120}
              onChange={(event) => setBed(event.target.value)}
            />
          </label>
          <RadioGroup
            aria-label={say("plot.kindOfBed")}
            className="bedkinds"
            value={kind}
            onChange={(event) => {
              setKind(event.target.value as Kind);
              setSized({});
            }}
          >
            {catalogue.bed_kinds.map((row) => (
              <FormControlLabel
                key={row.key}
                value={row.key}
                control={<Radio />}
                label={
                  <>
                    <BedKindGlyph kind={row.key} /> {row.name}
                  </>
                }
              />
            ))}
          </RadioGroup>
          {sizes.map(([side, label]) => (
            <QuantityRow
              key={`${kind}-${side}`}
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
          {kind === "container" && (
            <QuantityRow
              label={say("plot.howManyAlike")}
              text={String(alike)}
              value={alike}
              kind="count"
              system={units}
              low={1}
              high={MOST_ALIKE}
              onValue={setAlike}
            />
          )}
          {kind !== "container" && (
            <Pick
              label={kind === "in-ground" ? say("plot.soil") : say("plot.soilBelow")}
              value={soil}
              choices={[...catalogue.soils, { key: NOT_KNOWN, name: say("plot.iDoNotKnow") }]}
              onPick={setSoil}
            />
          )}
          {soil === NOT_KNOWN && kind !== "container" && (
            <p className="quiet hint">{say("plot.calculatedAsLooseGroundPostsGo")}</p>
          )}
        </section>
        <p className="actions">
          <Button type="submit" className="strong">
            {say("plot.planItsFirstSupport")}
          </Button>
          <button type="button" className="plain" onClick={() => void begin(false)}>
            {say("plot.addTheBedOnly")}
          </button>
          <button type="button" className="plain" onClick={onSkip}>
            {say("plot.skipTheseSteps")}
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
