import Slider from "@mui/material/Slider";

import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

export interface Moment {
  day: number;
  hour: number;
}

interface Props {
  shade: Schemas["ShadeOut"] | undefined;
  moment: Moment | null;
  onMoment: (moment: Moment | null) => void;
}

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
export const SHADE_START: Moment = { day: 212, hour: 15 };

/** Month and day of a day's number, in a year without a leap day. */
export const monthDay = (day: number) => new Date(Date.UTC(2001, 0, day)).toISOString().slice(5, 10);

/** The shade layer: on or off, the day and the hour. */
export function ShadeBar({ shade, moment, onMoment }: Props) {
  return (
    <div className="shadebar">
      <button
        type="button"
        className="tool"
        aria-pressed={moment !== null}
        onClick={() => onMoment(moment ? null : SHADE_START)}
      >
        {say("plot.shade2")}
      </button>
      {moment && (
        <>
          <div className="shadeslide">
            <span className="quiet">{say("plot.day")}</span>
            <Slider
              aria-label={say("plot.dayOfTheYear")}
              value={moment.day}
              min={1}
              max={365}
              step={1}
              getAriaValueText={(day) => monthDay(day)}
              marks={MONTHS.map((label, i) => ({ value: 1 + Math.round(i * 30.4), label }))}
              onChange={(_, day) => onMoment({ ...moment, day })}
            />
          </div>
          <div className="shadeslide">
            <span className="quiet">{say("plot.hour")}</span>
            <Slider
              aria-label={say("plot.hourOfSunTime")}
              value={moment.hour}
              min={5}
              max={21}
              step={0.25}
              marks={[6, 9, 12, 15, 18, 21].map((value) => ({ value, label: `${value}` }))}
              onChange={(_, hour) => onMoment({ ...moment, hour })}
            />
          </div>
          <span role="status" className="shadewords">
            {shade?.words ?? say("common.calculating")}
          </span>
        </>
      )}
    </div>
  );
}
