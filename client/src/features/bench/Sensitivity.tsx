import { type Draft, type Schemas } from "../../api/client";
import { useSensitivity } from "../../api/calculated";
import { useSettled } from "../../ui/useSettled";
import { say } from "../../texts/say";

const SOURCE: Record<string, string> = {
  judgement: say("bench.ourEstimate"),
  published: say("bench.publishedValue"),
  measured: "measured",
};

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
}

/** What the limit gust rests on: every input that moves it within what is known of it, the furthest first. */
export function Sensitivity({ structure, draft }: Props) {
  const settled = useSettled(draft);
  const found = useSensitivity(structure, settled);
  if (!found.data?.inputs.length) return null;
  return (
    <section aria-label={say("bench.whatChangesThisResultMost")}>
      <h2 style={{ marginTop: 14 }}>{say("bench.whatChangesThisResultMost")}</h2>
      <ul className="rests">
        {found.data.inputs.map((rest) => (
          <li key={rest.name}>
            {rest.name}{" "}
            <span className="narrow">
              {say("bench.to", { lowText: rest.low_text, highText: rest.high_text })}
            </span>{" "}
            <span className="quiet">{SOURCE[rest.certainty] ?? rest.certainty}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
