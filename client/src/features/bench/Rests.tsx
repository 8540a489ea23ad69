import { type Draft, type Schemas } from "../../api/client";
import { useRests } from "../../api/calculated";
import { useSettled } from "../../ui/useSettled";

const SOURCE: Record<string, string> = {
  judgement: "our estimate",
  published: "published value",
  measured: "measured",
};

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
}

/** What the limit gust rests on: every input that moves it within what is known of it, the furthest first. */
export function Rests({ structure, draft }: Props) {
  const settled = useSettled(draft);
  const found = useRests(structure, settled);
  if (!found.data?.rests.length) return null;
  return (
    <section aria-label="What changes this result most">
      <h2 style={{ marginTop: 14 }}>What changes this result most</h2>
      <ul className="rests">
        {found.data.rests.map((rest) => (
          <li key={rest.name}>
            {rest.name}{" "}
            <span className="narrow">
              {rest.low_text} to {rest.high_text}
            </span>{" "}
            <span className="quiet">{SOURCE[rest.certainty] ?? rest.certainty}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
