import { useEffect, useRef } from "react";
import { Navigate } from "react-router";

import { useGardens, useSession } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { askNewGarden } from "../../queue/asks";

/** The start: straight into the person's garden; someone who has none gets an empty one. */
export function FirstGarden() {
  const session = useSession();
  const gardens = useGardens();
  const fresh = useFresh();
  const making = useRef(false);
  const first = gardens.data?.[0];
  const name = session.data?.name;
  const none = gardens.data?.length === 0 && name;
  useEffect(() => {
    if (!none || making.current) return;
    making.current = true;
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    void askNewGarden({ name: `${name}’s garden`, timezone: timeZone }).then(() => fresh.again("gardens"));
  }, [none, name, fresh]);
  return first ? <Navigate to={`/gardens/${first.id}`} replace /> : <p className="page quiet">One moment…</p>;
}
