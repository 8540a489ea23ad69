import type { Garden } from "../api/client";
import { BedShape } from "./BedShape";
import { Earths } from "./Earths";
import { FeatureShape } from "./FeatureShape";
import { Margin } from "./Margin";
import type { Flat } from "./scale";
import { StructureShape } from "./StructureShape";
import { useSize } from "./useSize";
import { say } from "../texts/say";

const EDGE = 24;
const FOOT = 40; // pixels below, for the scale bar

/** A plan to look at: everything on it, as large as there is room. */
export function StillPlan({ plot, imperial }: { plot: Garden["plot"]; imperial: boolean }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [low, high] = [plot.low, plot.high];
  const perMetre = Math.max(
    Math.min((width - 2 * EDGE) / (high[0] - low[0]), (height - EDGE - FOOT) / (high[1] - low[1])),
    1,
  );
  const middle: Flat = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2 - (FOOT - EDGE) / 2 / perMetre];
  const scale = {
    perMetre,
    at: ([x, y]: Flat): [number, number] => [
      width / 2 + (x - middle[0]) * perMetre,
      height / 2 - (y - middle[1]) * perMetre,
    ],
  };
  return (
    <div ref={ref} style={{ height: "100%", overflow: "hidden" }}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={say("drawing.bedsStructures", {
            beds: plot.beds.length,
            supports: plot.structures.length,
          })}
        >
          <Earths />
          <Margin scale={scale} width={width} height={height} middle={middle} imperial={imperial} />
          {plot.features
            .filter((each) => each.kind === "path")
            .map((each) => (
              <FeatureShape key={each.key} feature={each} scale={scale} chosen={false} />
            ))}
          {plot.beds.map((each) => (
            <BedShape key={each.key} bed={each} scale={scale} chosen={false} />
          ))}
          {plot.features
            .filter((each) => each.kind !== "path")
            .map((each) => (
              <FeatureShape key={each.key} feature={each} scale={scale} chosen={false} />
            ))}
          {plot.structures.map((each) => (
            <StructureShape key={each.key} structure={each} scale={scale} chosen={false} />
          ))}
        </svg>
      )}
    </div>
  );
}
