import useMediaQuery from "@mui/material/useMediaQuery";
import { useEffect, useRef } from "react";
import { Navigate } from "react-router";

import { useGardens, useSession } from "../../api/queries";
import { useWeek } from "../../api/season";
import { useFresh } from "../../api/useFresh";
import { askNewGarden } from "../../queue/asks";
import { say } from "../../texts/say";

const PHONE = "(max-width: 640px)";

/**
 * The start: straight into the person’s garden, on a phone into what is due in it; someone who has none gets
 * an empty one.
 */
export function FirstGarden() {
  const session = useSession();
  const gardens = useGardens();
  const fresh = useFresh();
  const phone = useMediaQuery(PHONE, { noSsr: true });
  const making = useRef(false);
  const first = gardens.data?.[0];
  const week = useWeek(first?.id ?? 0, phone && first !== undefined);
  const name = session.data?.name;
  const none = gardens.data?.length === 0 && name;
  useEffect(() => {
    if (!none || making.current) return;
    making.current = true;
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    void askNewGarden({ name: say("plot.sGarden", { name }), timezone: timeZone }).then(() =>
      fresh.again("gardens"),
    );
  }, [none, name, fresh]);
  if (!first || (phone && week.isPending)) return <p className="page quiet">{say("common.loading")}</p>;
  const due = phone && (week.data?.structures.length ?? 0) > 0;
  return <Navigate to={`/gardens/${first.id}${due ? "/week" : ""}`} replace />;
}
