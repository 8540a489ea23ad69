import { useEffect, useMemo, useRef, useState } from "react";

import { api, type Edit, exactly, type Garden, type Schemas, type ThingEdit } from "../../api/client";
import { drawnOver } from "../../api/merged";
import { keyOf } from "../../queue/writes";

type PlotOut = Schemas["PlotOut"];

/**
 * The plan as it would be with what is in hand and not yet saved: drawn, with its warnings and distances; one
 * question in flight, the latest wins.
 */
export function usePlanDraft(garden: Garden, pending: readonly Edit[], hand: ThingEdit | null) {
  const [view, setView] = useState<(PlotOut & { about: string }) | null>(null);
  const asking = useRef(false);
  const waiting = useRef<{ edits: Edit[]; about: string } | null>(null);
  useEffect(() => {
    const edits = [...pending, ...(hand ? [hand] : [])].map((edit) => ({ ...edit, revision: null }));
    const latest = hand ?? pending.at(-1);
    waiting.current = { edits, about: latest ? keyOf(latest) : "" };
    const ask = async () => {
      if (asking.current) return;
      asking.current = true;
      for (let next = waiting.current; next; next = waiting.current) {
        waiting.current = null;
        if (!next.edits.length) {
          setView(null);
          continue;
        }
        try {
          const found = await exactly<PlotOut>(
            api.POST("/api/gardens/{garden_id}/draft", {
              params: { path: { garden_id: garden.id } },
              body: next,
            }),
          );
          setView({ ...found, about: next.about });
        } catch {
          // what is in hand is drawn where the hand put it; the saving says what is wrong
        }
      }
      asking.current = false;
    };
    void ask();
  }, [pending, hand, garden.id]);

  const plot = useMemo(
    () => (view ? drawnOver(garden.plot, view.plot, view.gone) : garden.plot),
    [garden.plot, view],
  );
  return { plot, view };
}
