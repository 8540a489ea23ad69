import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useState, type ReactNode } from "react";
import { Link, useSearchParams } from "react-router";

import type { Draft, Report, Schemas, View } from "../../api/client";
import { useGarden } from "../../api/queries";
import { Sheet } from "../../drawing/Sheet";
import { Bar } from "../../ui/Bar";
import { QuantityField } from "../../ui/QuantityField";
import { Answer } from "./Answer";
import { Chain } from "./Chain";
import { Controls } from "./Controls";
import { LinkPanel } from "./LinkPanel";
import { Tide } from "./Tide";
import { useDraft, type Saving } from "./useDraft";
import { useReport } from "./useReport";

interface Props {
  structure: Schemas["StructureOut"];
  catalogue: Schemas["Catalogue"];
}

const SAVING: Record<Saving, string> = { saved: "saved", saving: "saving…", refused: "not saved: see the marked value", conflict: "not saved", offline: "not saved: no answer from the server" };
const WIDE = { left: 74, right: 138, top: 52, bottom: 44 };
const SMALL = { left: 12, right: 12, top: 28, bottom: 12 };
const SPEED = { metric: { factor: 1, unit: "m/s" }, imperial: { factor: 2.2369363, unit: "mph" } };

/** The bench: controls, the drawing, the chain and the tide round one structure in hand. */
export function Bench({ structure, catalogue }: Props) {
  const hand = useDraft(structure.id, structure);
  const { draft, undo, redo } = hand;
  const garden = useGarden(structure.garden);
  const queries = useQueryClient();
  const [params, setParams] = useSearchParams();
  const asked = params.get("week");
  const open = params.get("link");
  const { report, problems } = useReport(structure.id, draft, asked === null ? null : Number(asked), structure.units);
  const [pointed, setPointed] = useState<{ link: string | null; member: string | null }>({ link: null, member: null });
  const [wind, setWind] = useState<0 | 1 | 2>(1);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.target instanceof HTMLInputElement) return;
      const key = event.key.toLowerCase();
      if (key === "z" && !event.shiftKey) undo();
      else if (key === "y" || (key === "z" && event.shiftKey)) redo();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);
  useEffect(() => {
    if (hand.saving !== "saved") return;
    void queries.invalidateQueries({ queryKey: ["garden"] });
    return () => queries.removeQueries({ queryKey: ["structure", structure.id] });
  }, [hand.saving, queries, structure.id]);

  const look = (name: string, value: string | null) =>
    setParams(
      (now) => {
        if (value === null) now.delete(name);
        else now.set(name, value);
        return now;
      },
      { replace: name === "week" },
    );
  const count = report?.weeks.length ?? 1;
  const week = Math.min(asked === null ? (report?.headline.week ?? 0) : Number(asked) || 0, count - 1);
  const weakest = report?.weeks[week]?.weakest ?? "";
  const members = useMemo(() => new Map(report?.links.map((link) => [link.key, link.members])), [report]);
  const lit = useMemo(() => new Set(members.get(pointed.link ?? open ?? "") ?? []), [members, pointed.link, open]);
  const short = (report?.links.find((link) => link.key === weakest)?.use[week] ?? 0) > 1;
  const weak = useMemo(() => new Set(short || open === weakest || pointed.link === weakest ? members.get(weakest) : []), [short, members, weakest, open, pointed.link]);
  const litLink = pointed.link ?? report?.links.find((link) => pointed.member && link.members.includes(pointed.member))?.key ?? null;
  const openMember = (member: string) => {
    const link = report?.links.filter((each) => each.members.includes(member)).sort((a, b) => (b.use[week] ?? 0) - (a.use[week] ?? 0))[0];
    if (link) look("link", link.key);
  };
  const setOption = (option: string, value: unknown) => hand.change({ ...draft, options: { ...draft.options, [option]: value } });
  const units = SPEED[structure.units];
  const speed = (metres: number) => (metres >= 45 ? `over ${Math.round(45 * units.factor)} ${units.unit}` : `${(metres * units.factor < 10 ? metres * units.factor : Math.floor(metres * units.factor)).toFixed(metres * units.factor < 9.95 ? 1 : 0)} ${units.unit}`);
  const link = report?.links.find((each) => each.key === open);
  const view = (name: View["name"]) => report?.views.find((each) => each.name === name);
  const sheet = (report_: Report, name: View["name"], title: string, room: typeof WIDE, editor?: (m: View["measures"][number], close: () => void) => ReactNode) => {
    const found = view(name);
    return (
      found && (
        <Sheet view={found} report={report_} week={week} wind={wind} title={title} room={room} lit={lit} weak={weak} onPoint={(member) => setPointed({ link: null, member })} onOpen={openMember} editor={editor} />
      )
    );
  };
  return (
    <>
      <Bar {...(garden.data ? { garden: garden.data } : {})}>
        <span className="grow trail">
          <Link to={`/gardens/${structure.garden}`}>{garden.data?.name ?? "garden"}</Link> / {structure.bed_name} / <strong>{draft.name}</strong>
        </span>
        <span className="quiet narrow" role="status">
          {SAVING[hand.saving]}
        </span>
        <button type="button" className="plain" onClick={undo} disabled={!hand.canUndo}>
          undo
        </button>
        <button type="button" className="plain" onClick={redo} disabled={!hand.canRedo}>
          redo
        </button>
        <Link to={`/structures/${structure.id}/parts`}>Parts{report ? `, ${report.cost_text}` : ""}</Link>
      </Bar>
      {hand.saving === "conflict" && (
        <div className="conflict" role="alert">
          <span>Someone else saved this structure meanwhile.</span>
          <button type="button" className="plain" onClick={() => hand.settle(true)}>
            keep mine
          </button>
          <button type="button" className="plain" onClick={() => hand.settle(false)}>
            take theirs
          </button>
        </div>
      )}
      <main className="bench">
        <div className="side">
          {link && report ? (
            <LinkPanel structure={structure} draft={draft} link={link} weakest={link.key === weakest} week={report.weeks[week]?.label ?? ""} onFix={setOption} onClose={() => look("link", null)} />
          ) : (
            <Controls structure={structure} catalogue={catalogue} draft={draft} report={report} problems={[...problems, ...hand.problems]} onChange={hand.change} onRelease={hand.release} />
          )}
        </div>
        <div className="stage">
          {report && (
            <>
              {sheet(report, "elevation", "From the side", WIDE, (measure, close) => (
                <MeasureEditor measure={measure} draft={draft} system={structure.units} catalogue={catalogue} family={structure.family} onChange={hand.change} onClose={close} />
              ))}
              <div>
                <div style={{ display: "grid", gridTemplateColumns: "2fr 1fr", height: 168, borderTop: "1px solid var(--hair)" }}>
                  {sheet(report, "plan", "From above", SMALL)}
                  <div style={{ display: "grid", borderLeft: "1px solid var(--hair)", minWidth: 0 }}>{sheet(report, "end", "From the end", SMALL)}</div>
                </div>
                <div className="stagefoot">
                  <span className="choices" role="group" aria-label="Wind in the drawing">
                    {(["still air", "working wind", "design gust"] as const).map((name, index) => (
                      <button key={name} type="button" aria-pressed={wind === index} onClick={() => setWind(index as 0)}>
                        {name}
                      </button>
                    ))}
                  </span>
                  <span>{wind === 0 ? "No wind, no bending." : `Bending drawn ${report.exaggeration} times larger than it is.`}</span>
                </div>
              </div>
            </>
          )}
        </div>
        {report && <Answer report={report} />}
        <aside className="path" aria-label="Load path">
          {report && (
            <>
              <Chain report={report} week={week} open={open} lit={litLink} onOpen={(key) => look("link", open === key ? null : key)} onPoint={(key) => setPointed({ link: key, member: null })} />
              <h2 style={{ marginTop: 10 }}>To know</h2>
              <ul className="notes">
                {report.remarks.map((remark) => (
                  <li key={remark.key + remark.text} data-mark={{ wrong: "×", watch: "!", fine: "·" }[remark.level]} className={remark.level === "fine" ? "quiet" : undefined}>
                    {remark.text}
                  </li>
                ))}
              </ul>
              <p className="quiet" style={{ fontSize: 13, marginTop: 10 }}>
                {report.cautions.at(-1)}
              </p>
            </>
          )}
        </aside>
        {report && <Tide report={report} week={week} units={units} speed={speed} onWeek={(next) => look("week", String(next))} />}
      </main>
    </>
  );
}

interface EditorProps {
  measure: View["measures"][number];
  draft: Draft;
  system: "metric" | "imperial";
  catalogue: Schemas["Catalogue"];
  family: string;
  onChange: (draft: Draft) => void;
  onClose: () => void;
}

function MeasureEditor({ measure, draft, system, catalogue, family, onChange, onClose }: EditorProps) {
  const [, name = ""] = /^options\.(.+)$/.exec(measure.option) ?? [];
  const field = catalogue.families.find((each) => each.key === family)?.options.find((each) => each.name === name);
  return (
    <QuantityField
      label={field?.label ?? "Plant spacing"}
      text={measure.text}
      value={measure.value}
      kind="length"
      system={system}
      low={field?.low}
      high={field?.high}
      step={field?.step ?? 0.01}
      focused
      onLeave={onClose}
      onValue={(value) => onChange({ ...draft, options: { ...draft.options, [name]: Number(value.toFixed(4)) } })}
    />
  );
}
