import { useQuery } from "@tanstack/react-query";

import { api, taken, type Draft, type LinkReport, type Schemas } from "../../api/client";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  link: LinkReport;
  weakest: boolean;
  week: string;
  onFix: (option: string, value: unknown) => void;
  onClose: () => void;
}

const SURE: Record<string, string> = { certain: "mechanics, certain", published: "published values, about ± 20 %", judgement: "judgement, a factor of 2 either way", measured: "measured here" };

/** An opened link: its working, its source, and what would make it hold, each one press. */
export function LinkPanel({ structure, draft, link, weakest, week, onFix, onClose }: Props) {
  const fixes = useQuery({
    queryKey: ["fixes", structure.id, link.key, draft, structure.units],
    queryFn: () => taken(api.POST("/api/structures/{structure_id}/fixes", { params: { path: { structure_id: structure.id } }, body: { draft, link: link.key } })),
  });
  return (
    <section aria-label={`Link: ${link.title}`}>
      <button type="button" className="plain" onClick={onClose}>
        ← all controls
      </button>
      <h1 className={weakest ? "weak" : undefined} style={{ fontSize: 23 }}>
        {link.title}
      </h1>
      <p className="quiet">
        {link.item}. {weakest ? "The weakest link, " : "Holds to "}
        {weakest ? `holds to ${link.limit_text}` : link.limit_text} in {week}.
      </p>
      <h2 style={{ marginTop: 14 }}>What would help</h2>
      {fixes.isPending && <p className="quiet">Trying the next sizes…</p>}
      {fixes.data?.fixes.length === 0 && <p className="quiet">Nothing one step away makes this link stronger.</p>}
      {fixes.data?.fixes.map((fix) => (
        <button key={fix.option} type="button" className="fix" onClick={() => onFix(fix.option, fix.value)}>
          <strong>{fix.words}</strong>
          <span className="narrow">{fix.cost_text}</span>
          <span className="quiet" style={{ gridColumn: "1 / 3", fontSize: 13.5 }}>
            this link to {fix.link_limit_text}; the whole fence to {fix.limit_text}
            {fix.holds ? ", holds" : ""}
          </span>
        </button>
      ))}
      <h2 style={{ marginTop: 16 }}>The working</h2>
      <p className="quiet" style={{ fontSize: 13 }}>
        At the design gust in {week}, moist soil.
      </p>
      {link.workings.map((working) => (
        <div key={working.title} className="working">
          <h3>
            {working.title}: use {working.use > 90 ? "over 90" : working.use.toFixed(2)}
          </h3>
          <p>{working.words}</p>
          <p className="formula">{working.formula}</p>
          <p className="formula">{working.numbers}</p>
          {working.compare && <p>{working.compare}</p>}
          <p className="quiet" style={{ fontSize: 13 }}>
            {working.source}. {SURE[working.certainty] ?? working.certainty}.
          </p>
        </div>
      ))}
    </section>
  );
}
