import Button from "@mui/material/Button";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { api, Refused, taken, type Schemas } from "../../api/client";
import { useCatalogue, useGarden } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { Pick } from "../../ui/Pick";
import { StateMark } from "../../ui/StateMark";

/** Crop, side and count in; a whole fence out, each value with its reason. */
export function NewFence() {
  const params = useParams();
  const gardenId = Number(params.gardenId);
  const bedId = Number(params.bedId);
  const garden = useGarden(gardenId);
  const catalogue = useCatalogue();
  const navigate = useNavigate();
  const [need, setNeed] = useState<Schemas["NeedIn"]>({ crop: "tom-slicer", side: "right", training: "pruned", count: null });
  const [count, setCount] = useState("");
  const [building, setBuilding] = useState(false);
  const path = { path: { bed_id: bedId } };
  const proposal = useQuery({
    queryKey: ["proposal", bedId, need],
    queryFn: () => taken(api.POST("/api/beds/{bed_id}/proposal", { params: path, body: need })),
    placeholderData: keepPreviousData,
  });
  const bed = garden.data?.beds.find((each) => each.id === bedId);
  if (garden.isPending) return <p className="page quiet">One moment…</p>;
  if (garden.isError || !bed) return <NotHere />;
  const build = async () => {
    setBuilding(true);
    const made = await taken(api.POST("/api/beds/{bed_id}/structures", { params: path, body: need }));
    await navigate(`/structures/${made.id}`);
  };
  const wrongCount = count !== "" && !/^\d{1,3}$/.test(count);
  const ask = (text: string) => {
    setCount(text);
    if (text === "" || /^[1-9]\d{0,2}$/.test(text)) setNeed({ ...need, count: text === "" ? null : Math.min(Number(text), 600) });
  };
  const data = proposal.data;
  return (
    <>
      <Bar garden={garden.data}>
        <span className="grow trail">
          <Link to={`/gardens/${gardenId}`}>{garden.data.name}</Link> / {bed.name}
        </span>
      </Bar>
      <main className="page">
        <h1>New fence on {bed.name}</h1>
        <p className="quiet">{bed.words}</p>
        <div style={{ display: "grid", gridTemplateColumns: "repeat(auto-fit, minmax(190px, 1fr))", gap: "14px 24px", margin: "20px 0" }}>
          <Pick label="Crop" value={need.crop} choices={catalogue.data?.crops ?? []} onPick={(crop) => setNeed({ ...need, crop })} />
          <Pick
            label="Planted on the"
            value={need.side}
            choices={Object.entries(bed.sides).map(([key, name]) => ({ key, name }))}
            onPick={(side) => setNeed({ ...need, side: side as "left" })}
          />
          <Pick
            label="Trained"
            value={need.training}
            choices={[
              { key: "pruned", name: "pruned, close together" },
              { key: "free", name: "left to grow, wider apart" },
            ]}
            onPick={(training) => setNeed({ ...need, training: training as "free" })}
          />
          <div className="field">
            <label htmlFor="count">How many plants</label>
            <input id="count" className="input" inputMode="numeric" placeholder="as many as fit" value={count} aria-invalid={wrongCount} onChange={(event) => ask(event.target.value)} />
            {wrongCount && (
              <span role="alert" className="refusal">
                ‘{count}’ is refused: 1 to 600 plants.
              </span>
            )}
          </div>
        </div>
        {proposal.isError && (
          <p role="alert" className="refusal">
            {proposal.error instanceof Refused ? proposal.error.message : "The server did not answer."}
          </p>
        )}
        {!data && proposal.isFetching && <p className="quiet">Sizing a fence that holds…</p>}
        {data && (
          <section aria-busy={proposal.isFetching} style={{ opacity: proposal.isFetching ? 0.6 : 1 }}>
            <div style={{ display: "flex", gap: 14, alignItems: "flex-start", borderTop: "1.5px solid var(--ink)", padding: "14px 0" }}>
              <StateMark state={data.report.headline.state} />
              <p style={{ flex: 1, fontSize: 17 }}>{data.report.headline.sentence}</p>
              <Button onClick={() => void build()} disabled={building} sx={{ bgcolor: "var(--ink)", color: "var(--paper)", "&:hover": { bgcolor: "var(--ink2)" } }}>
                Take it to the bench
              </Button>
            </div>
            <table>
              <thead>
                <tr>
                  <th>What</th>
                  <th>Filled in</th>
                  <th>Because</th>
                </tr>
              </thead>
              <tbody>
                {data.values.map((row) => (
                  <tr key={row.option}>
                    <td className="quiet">{row.label}</td>
                    <td>
                      <strong>{row.value}</strong>
                    </td>
                    <td>{row.reason}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <p className="quiet" style={{ marginTop: 10 }}>
              Everything can be changed on the bench. Parts about {data.report.cost_text}.
            </p>
          </section>
        )}
      </main>
    </>
  );
}
