import Button from "@mui/material/Button";
import { useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";

import { Refused, type Report, type Schemas } from "../../api/client";
import { useCatalogue, useGarden, useProposal, useSupports } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { askGarden } from "../../queue/asks";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { NotHere } from "../../ui/NotHere";
import { Pick } from "../../ui/Pick";
import { Kinds } from "./Kinds";

const TRAINED = [
  { key: "pruned", name: "pruned, close together" },
  { key: "free", name: "left to grow, wider apart" },
];
const NONE: ReadonlySet<string> = new Set();

/**
 * Crop, side and count in, a picture of the support pressed; the whole of it out, drawn, each value with its
 * reason.
 */
export function NewSupport() {
  const params = useParams();
  const gardenId = Number(params.gardenId);
  const bedKey = params.bedKey ?? "";
  const garden = useGarden(gardenId);
  const catalogue = useCatalogue(garden.data?.units);
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const [crop, setCrop] = useState<Schemas["CropIn"]>({
    crop: search.get("crop") ?? "tom-slicer",
    side: "right",
    training: "pruned",
  });
  const [count, setCount] = useState("");
  const [building, setBuilding] = useState(false);
  const [failed, setFailed] = useState("");
  const kinds = useSupports(gardenId, bedKey, crop);
  const family = search.get("on") ?? kinds.data?.supports[0]?.family ?? "";
  const most = catalogue.data?.bounds["planting.count"]?.high ?? 1;
  const readable = (text: string) => /^[1-9]\d*$/.test(text) && Number(text) <= most;
  const wrongCount = count !== "" && !readable(count);
  const need: Schemas["NeedIn"] = {
    ...crop,
    family,
    count: count !== "" && readable(count) ? Number(count) : null,
  };
  const proposal = useProposal(gardenId, bedKey, need, garden.data?.units);
  const bed = garden.data?.beds.find((each) => each.key === bedKey);
  if (garden.isPending) return <p className="page quiet">One moment…</p>;
  if (garden.isError) return <Faulty error={garden.error} garden={gardenId} />;
  if (!bed) return <NotHere />;
  const choose = (key: string) =>
    setSearch(
      (now) => {
        now.set("on", key);
        return now;
      },
      { replace: true },
    );
  const build = async () => {
    setBuilding(true);
    try {
      const made = await askGarden<Schemas["StructureOut"]>(
        gardenId,
        `/beds/${bedKey}/structures`,
        need,
        `a support for ${bed.fields.name}`,
      );
      await navigate(`/structures/${made.id}`);
    } catch (error) {
      setBuilding(false);
      setFailed(
        error instanceof Refused ? error.message : "The server did not answer; nothing was made. Try again.",
      );
    }
  };
  const data = proposal.data;
  const report: Report | undefined = data?.report;
  const chosen = kinds.data?.supports.find((each) => each.family === family);
  const refused = [proposal.error, kinds.error].find((error) => error);
  return (
    <>
      <Bar garden={garden.data}>
        <span className="grow trail">
          <Link to={`/gardens/${gardenId}`}>{garden.data.name}</Link> / {bed.fields.name}
        </span>
      </Bar>
      <main className="propose">
        <div className="asked">
          <div className="asks">
            <h1 style={{ overflowWrap: "anywhere" }}>A support for {bed.fields.name}</h1>
            <p className="quiet" style={{ marginBottom: 14 }}>
              {bed.words}
            </p>
            <Pick
              label="Crop"
              value={crop.crop}
              choices={catalogue.data?.crops ?? []}
              onPick={(key) => setCrop({ ...crop, crop: key })}
            />
            <Pick
              label="Planted on"
              value={crop.side}
              choices={Object.entries(bed.sides).map(([key, name]) => ({ key, name }))}
              onPick={(side) => setCrop({ ...crop, side: side as "left" })}
            />
            <Pick
              label="Trained"
              value={crop.training}
              choices={TRAINED}
              onPick={(training) => setCrop({ ...crop, training: training as "free" })}
            />
            <label className="row">
              <span className="label">How many</span>
              <input
                className="input"
                inputMode="numeric"
                placeholder="as many as fit"
                value={count}
                aria-invalid={wrongCount}
                aria-label="How many plants"
                onChange={(event) => setCount(event.target.value)}
              />
            </label>
            {wrongCount && (
              <p role="alert" className="refusal">
                How many plants: ‘{count}’ is refused: 1 to {most} plants.
              </p>
            )}
            {refused && (
              <p role="alert" className="refusal">
                {refused instanceof Refused ? refused.message : "The server did not answer."}
              </p>
            )}
          </div>
          <div className="verdict">
            <p className="verdictline" aria-live="polite">
              {report ? (
                <>
                  <strong>
                    {report.headline.limit_text}: {report.headline.words} at {report.headline.design_text}.
                  </strong>{" "}
                  {report.headline.sentence}
                </>
              ) : (
                "Sizing one that holds…"
              )}
            </p>
            <Button
              onClick={() => void build()}
              disabled={building || !data || wrongCount || proposal.isPlaceholderData}
              className="strong"
            >
              {building ? "Building it…" : "Take it to the bench"}
            </Button>
            {failed && (
              <p role="alert" className="refusal">
                {failed}
              </p>
            )}
            {report && (
              <p className="quiet" style={{ margin: "8px 0 0" }}>
                Parts about {report.cost_text}. Everything can be changed on the bench.
              </p>
            )}
          </div>
        </div>
        <div className="offered">
          <Kinds supports={kinds.data?.supports ?? []} chosen={family} onChoose={choose} />
          <section aria-busy={proposal.isFetching} aria-label="What is filled in, and why">
            {chosen && (
              <p className="kindwords">
                {chosen.what}{" "}
                <span className="quiet">
                  {chosen.suits} {chosen.weak}
                </span>
              </p>
            )}
            {report && (
              <div className="offeredsheet">
                <Sheet
                  report={report}
                  week={report.headline.week}
                  wind={0}
                  windText=""
                  lit={NONE}
                  weak={NONE}
                />
              </div>
            )}
            {data && (
              <dl className="reasons">
                {data.values.map((row) => (
                  <div key={row.option}>
                    <dt>{row.label}</dt>
                    <dd>
                      <strong>{row.value}</strong>
                      <span className="quiet">{row.reason}</span>
                    </dd>
                  </div>
                ))}
              </dl>
            )}
          </section>
        </div>
      </main>
    </>
  );
}
