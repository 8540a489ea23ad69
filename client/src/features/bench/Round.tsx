import { useMemo } from "react";

import { type Draft, type Report, type Schemas } from "../../api/client";
import { useSolid } from "../../api/calculated";
import { useStage } from "../../drawing/round/useStage";
import { useSettled } from "../../ui/useSettled";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  draft: Draft;
  report: Report;
  week: number;
  weak: ReadonlySet<string>;
  short: boolean;
  lit: ReadonlySet<string>;
  hour: number | null;
  onHour: (hour: number | null) => void;
}

/**
 * The structure in the round: turned by hand or keys, the soil cut open, the sun of an hour, a person for its
 * size, and the whole in words.
 */
export default function Round({ structure, draft, report, week, weak, short, lit, hour, onHour }: Props) {
  const settled = useSettled(draft);
  const found = useSolid(structure, settled, report.weeks[week]?.date ?? null);
  const data = found.data;

  const showing = useMemo(() => {
    if (!data) return null;
    const sun = data.suns.find((each) => each.hour === hour) ?? null;
    return {
      solid: data.solid,
      foliage: report.foliage,
      week,
      weak,
      short,
      lit,
      sun: sun?.towards ?? null,
      person: data.person,
    };
  }, [data, report.foliage, week, weak, short, lit, hour]);
  const { box, canvas, blind, onKeyDown } = useStage(showing);
  const noon =
    data?.suns.reduce(
      (a, b) => (Math.abs(b.hour - 12) < Math.abs(a.hour - 12) ? b : a),
      data.suns[0] ?? { hour: 12 },
    ).hour ?? 12;
  return (
    <div className="round">
      <div className="roundbox" ref={box}>
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={say("bench.n3dViewTurnItWithThe", { says: data?.says ?? "" })}
          onKeyDown={onKeyDown}
        />
        {blind && <p className="quiet roundblind">{say("bench.thisBrowserCannotShowThe3d")}</p>}
      </div>
      <p className="roundsays">
        {data?.says}{" "}
        <span className="quiet">
          {data ? say("bench.theFigureStandsTall", { personText: data.person_text }) : ""}
        </span>
      </p>
      <div className="roundsun">
        <button
          type="button"
          className="plain"
          aria-pressed={hour !== null}
          onClick={() => onHour(hour === null ? noon : null)}
        >
          {hour === null ? say("bench.withItsShadow") : say("bench.withoutShadow")}
        </button>
        {hour !== null && data && data.suns.length > 1 && (
          <label>
            <span className="narrow">
              {data.suns.find((each) => each.hour === hour)?.text ?? say("bench.noSun")}
            </span>
            <input
              type="range"
              aria-label={say("bench.hourOfTheSun")}
              min={data.suns[0]?.hour}
              max={data.suns[data.suns.length - 1]?.hour}
              step={1}
              value={hour}
              onChange={(event) => onHour(Number(event.target.value))}
            />
          </label>
        )}
      </div>
    </div>
  );
}
