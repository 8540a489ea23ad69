import { useParams } from "react-router";

import { useCatalogue, useStructure } from "../../api/queries";
import { Faulty } from "../../ui/Faulty";
import { Bench } from "./Bench";
import { say } from "../../texts/say";

/** The bench takes up what is saved now, never what was last looked at. */
export function BenchPage() {
  const structure = useStructure(Number(useParams().structureId));
  const catalogue = useCatalogue(structure.data?.units);
  if (structure.isError) return <Faulty error={structure.error} />;
  if (!structure.data || !structure.isFetchedAfterMount || !catalogue.data)
    return <p className="page quiet">{say("common.loading")}</p>;
  return <Bench key={structure.data.id} structure={structure.data} catalogue={catalogue.data} />;
}
