import { useMemo } from "react";

import type { View } from "../../api/client";
import { Ground } from "../../drawing/Ground";
import { sheetLayout } from "../../drawing/layout";
import { Marks } from "../../drawing/Marks";
import type { Flat } from "../../drawing/scale";
import { useSize } from "../../drawing/useSize";

interface Props {
  views: readonly View[];
  /** Members that stand already, and those of this step. */
  standing: ReadonlySet<string>;
  fresh: ReadonlySet<string>;
  title: string;
}

const NAMES: readonly View["name"][] = ["elevation", "plan", "end"];
const NONE: ReadonlySet<string> = new Set();
const still = (point: Flat): Flat => point;

/** The structure as it stands before a step, pale, with what the step sets in ink. */
export function StepDrawing({ views, standing, fresh, title }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const named = useMemo(
    () => Object.fromEntries(views.map((view) => [view.name, view])) as Record<View["name"], View>,
    [views],
  );
  const layout = useMemo(() => sheetLayout(named, 0, width, height), [named, width, height]);
  // the soil that grips a post is drawn with it
  const of = (view: View, members: ReadonlySet<string>): View => ({
    ...view,
    marks: view.marks.filter((mark) => members.has(mark.member.replace(/^grip/, "post"))),
  });
  return (
    <div className="stepdrawing" ref={ref}>
      {width > 0 && (
        <svg width={layout.width} height={layout.height} role="img" aria-label={title}>
          <Ground views={named} layout={layout} />
          {NAMES.map((name) => {
            const scale = { perMetre: layout.perMetre, at: layout.at[name] };
            const drawn = { scale, weak: NONE, bend: still, sag: 0, short: false };
            return (
              <g key={name}>
                <g opacity={0.3}>
                  <Marks view={of(named[name], standing)} lit={NONE} {...drawn} />
                </g>
                <Marks view={of(named[name], fresh)} lit={fresh} {...drawn} />
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}
