import { useParams } from "react-router";

import { useCatalogue, useStructure } from "../../api/queries";
import { NotHere } from "../../ui/NotHere";
import { Bench } from "./Bench";

export function BenchPage() {
  const structure = useStructure(Number(useParams().structureId));
  const catalogue = useCatalogue();
  if (structure.isError) return <NotHere />;
  if (!structure.data || !catalogue.data) return <p className="page quiet">One moment…</p>;
  return <Bench key={structure.data.id} structure={structure.data} catalogue={catalogue.data} />;
}
