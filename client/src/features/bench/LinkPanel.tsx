import { useEffect, useRef } from "react";

import { type Draft, type LinkReport, type OptionField, type Schemas } from "../../api/client";
import { useFixes } from "../../api/calculated";
import { LogLine } from "../../ui/LogLine";
import { upTo } from "../../ui/upTo";
import { SizingPanel } from "./SizingPanel";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  link: LinkReport;
  weakest: boolean;
  short: boolean;
  fails: boolean;
  /** The part that was pressed on the drawing, where it was one. */
  member: string;
  week: string;
  options: readonly OptionField[];
  onFix: (changes: Record<string, unknown>, taken?: Draft["taken"]) => void;
  onClose: () => void;
}

const SURE: Record<string, string> = {
  certain: "mechanics, certain",
  published: say("bench.publishedValuesAbout20"),
  judgement: say("bench.ourEstimateItMayBeHalf"),
  measured: say("bench.measuredHere"),
};

/**
 * An opened link: what would make it hold, each one press, then its working, its source and how sure it is.
 */
export function LinkPanel({
  structure,
  draft,
  link,
  weakest,
  short,
  fails,
  member,
  week,
  options,
  onFix,
  onClose,
}: Props) {
  const fixes = useFixes(structure, draft, link.key);
  const panel = useRef<HTMLElement>(null);
  useEffect(() => {
    // on a phone the panel stands far below the chain that was pressed
    if ((panel.current?.getBoundingClientRect().top ?? 0) > window.innerHeight)
      panel.current?.scrollIntoView();
  }, [link.key]);
  return (
    <section ref={panel} aria-label={say("bench.link", { title: link.title })}>
      <button type="button" className="plain" style={{ marginLeft: -6 }} onClick={onClose}>
        {say("bench.allControls")}
      </button>
      <h1 className={fails ? "weak" : undefined} style={{ fontSize: 24 }}>
        {link.title}
      </h1>
      <p>{link.item}</p>
      <p className="quiet">
        {weakest && say("bench.theWeakestLink")}
        {say("bench.holdsInExpectedToFail", {
          limitText: upTo(link.limit_text),
          week,
          onceText: link.return_period_text,
        })}
        {link.return_period_range && ` (${link.return_period_range})`}.
      </p>
      <h2 style={{ marginTop: 14 }}>{say("bench.whatWouldHelp")}</h2>
      {fixes.isPending && <p className="quiet">{say("common.calculating")}</p>}
      {fixes.data?.fixes.length === 0 && <p className="quiet">{say("bench.noSingleChangeMakesThisLink")}</p>}
      {fixes.data?.fixes.map((fix) => (
        <button
          key={fix.option}
          type="button"
          className="fix"
          onClick={() => onFix({ [fix.option]: fix.value })}
        >
          <strong>{fix.words}</strong>
          <span className="narrow">{fix.cost_text}</span>
          <span className="quiet said">
            {say(fix.holds ? "bench.thisLinkThenHoldsAndIsEnough" : "bench.thisLinkThenHoldsTheSupport", {
              linkLimitText: upTo(fix.link_limit_text),
              limitText: upTo(fix.limit_text),
            })}
          </span>
        </button>
      ))}
      {short && fixes.data && !fixes.data.fixes.some((fix) => fix.holds) && (
        <>
          <p style={{ marginTop: 8 }}>{say("bench.noSingleChangeIsEnoughSeveral")}</p>
          <SizingPanel
            key={JSON.stringify(draft)}
            structure={structure}
            draft={draft}
            options={options}
            onFix={onFix}
          />
        </>
      )}
      <h2 style={{ marginTop: 18 }}>{say("bench.calculation")}</h2>
      <p className="quiet" style={{ fontSize: 13 }}>
        {say("bench.calculatedForTheGustItNeeds", { week })}
      </p>
      {link.workings.map((working) => (
        <div key={working.title} className="working">
          <h3>
            {say("bench.use", {
              title: working.title,
              use: working.utilisation > 90 ? "over 90" : working.utilisation.toFixed(2),
            })}
          </h3>
          <p>{working.words}</p>
          <p className="formula">{working.formula}</p>
          <p className="formula">{working.numbers}</p>
          <p>{working.expects}</p>
          {working.compare && <p>{working.compare}</p>}
          <p className="quiet" style={{ fontSize: 13 }}>
            {working.source}. {SURE[working.certainty] ?? working.certainty}.
          </p>
        </div>
      ))}
      {structure.may_edit && <LogLine garden={structure.garden} about={structure.key} member={member} />}
    </section>
  );
}
