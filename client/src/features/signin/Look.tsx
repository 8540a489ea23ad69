import { useEffect, useState } from "react";
import { useNavigate, useParams } from "react-router";

import { api, taken } from "../../api/client";
import { useFresh } from "../../api/useFresh";
import { NotHere } from "../../ui/NotHere";
import { say } from "../../texts/say";

/** A read-only link: opens its garden for this visit. */
export function Look() {
  const { token = "" } = useParams();
  const navigate = useNavigate();
  const fresh = useFresh();
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    void (async () => {
      try {
        const garden = await taken(api.POST("/api/look", { body: { token } }));
        await fresh.everything();
        await navigate(`/gardens/${garden.id}`, { replace: true });
      } catch {
        setFailed(true);
      }
    })();
  }, [token, navigate, fresh]);
  return failed ? <NotHere /> : <p className="page quiet">{say("common.loading")}</p>;
}
