import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useParams } from "react-router";

import { api, Refused, taken } from "../../api/client";
import { reportOf, useGarden, useStructure } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";

const NONE: ReadonlySet<string> = new Set();

/** What to buy, with the gardener's own prices; prints and goes out as CSV. */
export function PartsPage() {
  const id = Number(useParams().structureId);
  const queries = useQueryClient();
  const structure = useStructure(id);
  const garden = useGarden(structure.data?.garden ?? 0);
  const draft = structure.data?.draft;
  const report = useQuery({
    queryKey: ["parts", id, draft],
    enabled: draft !== undefined,
    queryFn: () => {
      if (!draft) throw new Error("no structure");
      return reportOf(id, { draft, week: null });
    },
  });
  const [refusal, setRefusal] = useState<{ key: string; text: string } | null>(null);
  if (structure.isError) return <NotHere />;
  if (!structure.data || !report.data) return <p className="page quiet">One moment…</p>;
  const currency = garden.data?.currency ?? "";
  const setPrice = async (key: string, text: string, now: number) => {
    const price = Number(text.replace(",", "."));
    if (price === now) return;
    if (text.trim() === "" || !Number.isFinite(price) || price < 0) {
      setRefusal({ key, text: `‘${text}’ is refused: a price of 0 or more.` });
      return;
    }
    try {
      await taken(api.PATCH("/api/gardens/{garden_id}", { params: { path: { garden_id: structure.data.garden } }, body: { prices: { [key]: price } } }));
      setRefusal(null);
      await queries.invalidateQueries({ queryKey: ["parts"] });
    } catch (error) {
      setRefusal({ key, text: error instanceof Refused ? error.message : "The server did not answer." });
    }
  };
  return (
    <>
      <Bar {...(garden.data ? { garden: garden.data } : {})}>
        <span className="grow trail">
          <Link to={`/gardens/${structure.data.garden}`}>{garden.data?.name}</Link> / <Link to={`/structures/${id}`}>{structure.data.draft.name}</Link>
        </span>
      </Bar>
      <main className="page">
        <h1 style={{ overflowWrap: "anywhere" }}>Parts for {structure.data.draft.name}</h1>
        <p className="quiet">{report.data.headline.sentence}</p>
        <p className="noprint" style={{ margin: "14px 0", display: "flex", gap: 10 }}>
          <Button href={`/api/structures/${id}/parts.csv`}>Save as CSV</Button>
          <Button onClick={() => window.print()}>Print</Button>
        </p>
        <div className="partssheet">
          <Sheet report={report.data} week={report.data.headline.week} wind={0} windText="" lit={NONE} weak={NONE} />
        </div>
        <table className="parts">
          <thead>
            <tr>
              <th>Part</th>
              <th>For</th>
              <th className="num">Needed</th>
              <th>Buy</th>
              <th>Lasts</th>
              <th className="num">Price each, {currency}</th>
              <th className="num">Cost, {currency}</th>
            </tr>
          </thead>
          <tbody>
            {report.data.parts.map((part) => (
              <tr key={part.key + part.use}>
                <td>{part.name}</td>
                <td className="quiet">{part.use}</td>
                <td className="num">{part.count}</td>
                <td>{part.buy}</td>
                <td className="quiet">{part.lasts}</td>
                <td className="num">
                  <input
                    className="input"
                    style={{ textAlign: "right", width: 84 }}
                    aria-label={`Price of ${part.name}`}
                    aria-invalid={refusal?.key === part.key}
                    defaultValue={part.price.toFixed(2)}
                    key={part.price}
                    inputMode="decimal"
                    onBlur={(event) => void setPrice(part.key, event.target.value, part.price)}
                  />
                  {refusal?.key === part.key && (
                    <p role="alert" className="refusal">
                      {refusal.text}
                    </p>
                  )}
                </td>
                <td className="num">{part.cost.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={6}>
                <strong>Together</strong>
              </td>
              <td className="num">
                <strong>{report.data.cost.toFixed(2)}</strong>
              </td>
            </tr>
          </tfoot>
        </table>
        <h2 style={{ marginTop: 26 }}>Before you build</h2>
        <ul className="notes">
          {report.data.cautions.map((text) => (
            <li key={text} data-mark="!">
              {text}
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
