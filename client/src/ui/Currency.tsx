import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useId } from "react";
import { say } from "../texts/say";

export const UNSAID = "¤";
const SIGNS = [
  "€",
  "£",
  "$",
  "CHF",
  "kr",
  "zł",
  "Kč",
  "Ft",
  "lei",
  "₺",
  "₹",
  "¥",
  "R",
  "R$",
  "A$",
  "C$",
  "NZ$",
];
const MOST = 8;

interface Props {
  value: string;
  onPick: (sign: string) => void;
}

/** The money prices are in: a sign or a code, one of the usual ones or whatever is written. */
export function Currency({ value, onPick }: Props) {
  const id = useId();
  const pick = (sign: string | null) => {
    const said = (sign ?? "").trim().slice(0, MOST);
    if (said && said !== value) onPick(said);
  };
  return (
    <div className="row">
      <label className="label" htmlFor={id}>
        {say("ui.currency")}
      </label>
      <Autocomplete<string, false, true, true>
        id={id}
        freeSolo
        autoSelect
        disableClearable
        openOnFocus
        selectOnFocus
        options={SIGNS}
        filterOptions={(all) => all}
        value={value === UNSAID ? "" : value}
        onChange={(_event, sign) => pick(sign)}
        renderInput={(params) => <TextField {...params} variant="standard" placeholder={say("ui.kr")} />}
      />
    </div>
  );
}
