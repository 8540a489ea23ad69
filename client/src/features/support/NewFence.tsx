import Button from "@mui/material/Button";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { api, exactly, Refused, taken, type Report, type Schemas } from "../../api/client";
import { useCatalogue, useGarden } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { Pick } from "../../ui/Pick";

const TRAINED = [
  { key: "pruned", name: "pruned, close together" },
  { key: "free", name: "left to grow, wider apart" },
];
const NONE: ReadonlySet<string> = new Set();

/** Crop, side and count in; a whole fence out, drawn, each value with its reason. */
export function NewFence() {
  const params = useParams();
  const gardenId = Number(params.gardenId);
  const bedKey = params.bedKey ?? "";
  const garden = useGarden(gardenId);
  const catalogue = useCatalogue();
  const navigate = useNavigate();
  const [need, setNeed] = useState<Schemas["NeedIn"]>({ crop: "tom-slicer", side: "right", training: "pruned", count: null });
  const [count, setCount] = useState("");
  const [building, setBuilding] = useState(false);
  const [failed, setFailed] = useState("");
  const path = { path: { garden_id: gardenId, bed: bedKey } };
  const proposal = useQuery({
    queryKey: ["proposal", gardenId, bedKey, need, garden.data?.units],
    queryFn: () => exactly<Schemas["ProposalOut"]>(api.POST("/api/gardens/{garden_id}/beds/{bed}/proposal", { params: path, body: need })),
    placeholderData: keepPreviousData,
  });
  const bed = garden.data?.beds.find((each) => each.key === bedKey);
  if (garden.isPending) return <p className="page quiet">One moment…</p>;
  if (garden.isError || !bed) return <NotHere />;
  const build = async () => {
    setBuilding(true);
    try {
      const made = await taken(api.POST("/api/gardens/{garden_id}/beds/{bed}/structures", { params: path, body: need }));
      await navigate(`/structures/${made.id}`);
    } catch (error) {
      setBuilding(false);
      setFailed(error instanceof Refused ? error.message : "The server did not answer; nothing was made. Try again.");
    }
  };
  const most = catalogue.data?.bounds["planting.count"]?.high ?? 1;
  const readable = (text: string) => /^[1-9]\d*$/.test(text) && Number(text) <= most;
  const wrongCount = count !== "" && !readable(count);
  const ask = (text: string) => {
    setCount(text);
    if (text === "" || readable(text)) setNeed({ ...need, count: text === "" ? null : Number(text) });
  };
  const data = proposal.data;
  const report: Report | undefined = data?.report;
  return (
    <>
      <Bar garden={garden.data}>
        <span className="grow trail">
          <Link to={`/gardens/${gardenId}`}>{garden.data.name}</Link> / {bed.fields.name}
        </span>
      </Bar>
      <main className="propose">
        <div className="asked">
          <h1 style={{ overflowWrap: "anywhere" }}>A support for {bed.fields.name}</h1>
          <p className="quiet" style={{ marginBottom: 14 }}>
            {bed.words}
          </p>
          <Pick label="Crop" value={need.crop} choices={catalogue.data?.crops ?? []} onPick={(crop) => setNeed({ ...need, crop })} />
          <Pick label="Planted on" value={need.side} choices={Object.entries(bed.sides).map(([key, name]) => ({ key, name }))} onPick={(side) => setNeed({ ...need, side: side as "left" })} />
          <Pick label="Trained" value={need.training} choices={TRAINED} onPick={(training) => setNeed({ ...need, training: training as "free" })} />
          <label className="row">
            <span className="label">How many</span>
            <input className="input" inputMode="numeric" placeholder="as many as fit" value={count} aria-invalid={wrongCount} aria-label="How many plants" onChange={(event) => ask(event.target.value)} />
          </label>
          {wrongCount && (
            <p role="alert" className="refusal">
              ‘{count}’ is refused: 1 to {most} plants.
            </p>
          )}
          {proposal.isError && (
            <p role="alert" className="refusal">
              {proposal.error instanceof Refused ? proposal.error.message : "The server did not answer."}
            </p>
          )}
          <p className="verdictline" aria-live="polite">
            {report ? (
              <>
                <strong>
                  {report.headline.limit_text}: {report.headline.words} at {report.headline.design_text}.
                </strong>{" "}
                {report.headline.sentence}
              </>
            ) : (
              "Sizing a fence that holds…"
            )}
          </p>
          <Button onClick={() => void build()} disabled={building || !data || wrongCount} className="strong">
            Take it to the bench
          </Button>
          {failed && (
            <p role="alert" className="refusal">
              {failed}
            </p>
          )}
          {report && <p className="quiet" style={{ margin: "8px 0 0" }}>Parts about {report.cost_text}. Everything can be changed on the bench.</p>}
        </div>
        <section className="offered" aria-busy={proposal.isFetching} aria-label="What is filled in, and why">
          {report && (
            <div className="offeredsheet">
              <Sheet report={report} week={report.headline.week} wind={0} windText="" lit={NONE} weak={NONE} />
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
      </main>
    </>
  );
}
