import NativeSelect from "@mui/material/NativeSelect";
import { useId } from "react";
import { say } from "../texts/say";

const MONTHS = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December",
];
const two = (n: number) => String(n).padStart(2, "0");
const daysIn = (month: number) => new Date(2001, month, 0).getDate();

interface Props {
  label: string;
  value: string;
  onDate: (date: string) => void;
}

/** A day of the year, whichever year it is. */
export function DayOfYear({ label, value, onDate }: Props) {
  const id = useId();
  const [month = 1, day = 1] = value.split("-").map(Number);
  const put = (m: number, d: number) => onDate(`${two(m)}-${two(Math.min(d, daysIn(m)))}`);
  return (
    <div className="row" role="group" aria-labelledby={id}>
      <span className="label" id={id}>
        {label}
      </span>
      <span style={{ display: "grid", gridTemplateColumns: "52px 1fr", gap: 8 }}>
        <NativeSelect
          inputProps={{ "aria-label": say("ui.day", { label }) }}
          value={day}
          onChange={(event) => put(month, Number(event.target.value))}
        >
          {Array.from({ length: daysIn(month) }, (_, i) => (
            <option key={i} value={i + 1}>
              {i + 1}
            </option>
          ))}
        </NativeSelect>
        <NativeSelect
          inputProps={{ "aria-label": say("ui.month", { label }) }}
          value={month}
          onChange={(event) => put(Number(event.target.value), day)}
        >
          {MONTHS.map((name, i) => (
            <option key={name} value={i + 1}>
              {name}
            </option>
          ))}
        </NativeSelect>
      </span>
    </div>
  );
}
