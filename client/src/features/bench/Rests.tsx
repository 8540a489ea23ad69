import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { api, taken, type Draft, type Schemas } from "../../api/client";
import { useSettled } from "../../ui/useSettled";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
}

/** What the limit gust rests on: every input that moves it within what is known of it, the furthest first. */
export function Rests({ structure, draft }: Props) {
  const settled = useSettled(draft);
  const found = useQuery({
    queryKey: ["rests", structure.id, settled, structure.units],
    queryFn: ({ signal }) =>
      taken(
        api.POST("/api/structures/{structure_id}/rests", {
          params: { path: { structure_id: structure.id } },
          signal,
          body: { draft: settled },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  if (!found.data?.rests.length) return null;
  return (
    <section aria-label="What this rests on">
      <h2 style={{ marginTop: 14 }}>What this rests on</h2>
      <ul className="rests">
        {found.data.rests.map((rest) => (
          <li key={rest.name}>
            {rest.name}{" "}
            <span className="narrow">
              {rest.low_text} to {rest.high_text}
            </span>{" "}
            <span className="quiet">by {rest.certainty}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
