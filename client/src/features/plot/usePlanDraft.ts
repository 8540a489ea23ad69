import { useEffect, useMemo, useRef, useState } from "react";

import { api, type Edit, exactly, type Garden, type Schemas, type ThingEdit } from "../../api/client";
import { keyOf } from "../../queue/writes";

type PlotOut = Schemas["PlotOut"];
type Plot = Schemas["PlotDrawing"];

/** A plan with what differs in another laid over it: what is no longer there goes, what is new comes last. */
function drawnOver(plot: Plot, { plot: other, gone }: PlotOut): Plot {
  const over = <T extends { key: string }>(before: readonly T[], after: readonly T[]): T[] => {
    const marks = new Map(after.map((mark) => [mark.key, mark]));
    const kept = before.filter((mark) => !gone.includes(mark.key)).map((mark) => marks.get(mark.key) ?? mark);
    return [...kept, ...after.filter((mark) => !before.some((each) => each.key === mark.key))];
  };
  return {
    ...other,
    beds: over(plot.beds, other.beds),
    features: over(plot.features, other.features),
    structures: over(plot.structures, other.structures),
  };
}

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

  const plot = useMemo(() => (view ? drawnOver(garden.plot, view) : garden.plot), [garden.plot, view]);
  return { plot, view };
}
