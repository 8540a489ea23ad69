import { Navigate } from "react-router";

import { useGardens } from "../../api/queries";
import { NotHere } from "../../ui/NotHere";

/** The start: straight into the person's garden. */
export function FirstGarden() {
  const gardens = useGardens();
  if (gardens.isPending) return <p className="page quiet">One moment…</p>;
  const first = gardens.data?.[0];
  return first ? <Navigate to={`/gardens/${first.id}`} replace /> : <NotHere />;
}
