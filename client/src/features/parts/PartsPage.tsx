import Button from "@mui/material/Button";
import { Link, useParams } from "react-router";

import { Refused } from "../../api/client";
import { useGarden, useStructure } from "../../api/queries";
import { usePartsReport } from "../../api/calculated";
import { useFresh } from "../../api/useFresh";
import { Sheet } from "../../drawing/Sheet";
import { changePlace } from "../../queue/asks";
import { Bar } from "../../ui/Bar";
import { Faulty } from "../../ui/Faulty";
import { Cautions } from "./Cautions";
import { CutList } from "./CutList";
import { PartsTable } from "./PartsTable";
import { say } from "../../texts/say";

const NONE: ReadonlySet<string> = new Set();

/** What to buy for one structure, with the gardener's own prices; prints and goes out as CSV. */
export function PartsPage() {
  const id = Number(useParams().structureId);
  const fresh = useFresh();
  const structure = useStructure(id);
  const garden = useGarden(structure.data?.garden ?? 0);
  const draft = structure.data?.draft;
  const report = usePartsReport(id, draft);
  if (structure.isError) return <Faulty error={structure.error} />;
  if (!structure.data || !report.data) return <p className="page quiet">{say("common.loading")}</p>;
  const { garden: gardenId, may_edit: mayEdit } = structure.data;
  const setPrice = async (key: string, price: number) => {
    try {
      await changePlace(gardenId, { prices: { [key]: price } }, say("parts.priceOf", { key }));
      await fresh.again("parts");
      return "";
    } catch (error) {
      return error instanceof Refused ? error.message : say("common.theServerDidNotAnswer");
    }
  };
  return (
    <>
      <Bar {...(garden.data ? { garden: garden.data } : {})}>
        <span className="grow trail">
          <Link to={`/gardens/${gardenId}`}>{garden.data?.name ?? "garden"}</Link> /{" "}
          <Link to={`/structures/${id}`}>{structure.data.draft.name}</Link>
        </span>
      </Bar>
      <main className="page">
        <h1 style={{ overflowWrap: "anywhere" }}>
          {say("parts.partsFor", { name: structure.data.draft.name })}
        </h1>
        <p className="quiet">{report.data.headline.sentence}</p>
        <p className="noprint actions">
          <Button href={`/api/structures/${id}/parts.csv`}>{say("parts.saveAsCsv")}</Button>
          {report.data.cuts.length > 0 && (
            <Button href={`/api/structures/${id}/cuts.csv`}>{say("parts.saveTheCutList")}</Button>
          )}
          <Button href={`/api/structures/${id}/views.svg`}>{say("parts.saveTheDrawing")}</Button>
          <Button onClick={() => window.print()}>{say("parts.print")}</Button>
        </p>
        <div className="partssheet">
          <Sheet
            report={report.data}
            week={report.data.headline.week}
            wind={0}
            windText=""
            lit={NONE}
            weak={NONE}
          />
        </div>
        <PartsTable
          parts={report.data.parts}
          cost={report.data.cost}
          currency={garden.data?.place.fields.currency ?? ""}
          onPrice={mayEdit ? setPrice : undefined}
        />
        <p className="costs">
          <strong>{report.data.costs.season}</strong>{" "}
          {say("parts.aSeason", { plant: report.data.costs.plant })}
          {report.data.costs.crop && `; ${report.data.costs.crop}`}.{" "}
          <span className="quiet">{report.data.costs.said}</span>
        </p>
        <CutList cuts={report.data.cuts} />
        <Cautions texts={report.data.cautions} />
      </main>
    </>
  );
}
