import { DayOfYear } from "./DayOfYear";
import { Tick } from "./Tick";
import { say } from "../texts/say";

export interface FrostDays {
  last_frost: string | null;
  first_frost: string | null;
}

interface Props {
  value: FrostDays;
  latitude: number;
  onFrosts: (frosts: FrostDays) => void;
}

/** Frosts of a place that says none yet, by the half of the earth that it lies on. */
const usual = (latitude: number): FrostDays =>
  latitude < 0
    ? { last_frost: "10-01", first_frost: "05-10" }
    : { last_frost: "04-24", first_frost: "10-27" };

/** The last and the first frost of a garden, or that it never freezes there. */
export function Frosts({ value, latitude, onFrosts }: Props) {
  const { last_frost, first_frost } = value;
  return (
    <>
      <Tick
        label={say("ui.itNeverFreezesHere")}
        checked={last_frost === null}
        onTick={(never) => onFrosts(never ? { last_frost: null, first_frost: null } : usual(latitude))}
      />
      {last_frost !== null && first_frost !== null && (
        <>
          <DayOfYear
            label={say("ui.lastFrost")}
            value={last_frost}
            onDate={(day) => onFrosts({ last_frost: day, first_frost })}
          />
          <DayOfYear
            label={say("ui.firstFrost")}
            value={first_frost}
            onDate={(day) => onFrosts({ last_frost, first_frost: day })}
          />
        </>
      )}
    </>
  );
}
