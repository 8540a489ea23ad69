import Autocomplete from "@mui/material/Autocomplete";
import NativeSelect from "@mui/material/NativeSelect";
import TextField from "@mui/material/TextField";
import { useId, useMemo, useState } from "react";
import { say } from "../texts/say";

interface Choice {
  key: string;
  name: string;
}

interface Props {
  label: string;
  value: string;
  choices: readonly Choice[];
  onPick: (key: string) => void;
}

const SEEN_AT_ONCE = 9;

/** One of a list, in one row: a short list opens as it is, a long one is searched by any word of a name. */
export function Pick({ label, value, choices, onPick }: Props) {
  const id = useId();
  const name = choices.find((choice) => choice.key === value)?.name;
  // one and the same as long as it says the same: the field takes another for a new choice, and what is
  // typed would be lost
  const chosen = useMemo(() => (name === undefined ? undefined : { key: value, name }), [value, name]);
  // what is chosen elsewhere meanwhile waits while a name is being typed, which it would write over
  const [inHand, setInHand] = useState<Choice | null>(null);
  return (
    <div className="row">
      <label className="label" htmlFor={id}>
        {label}
      </label>
      {choices.length > SEEN_AT_ONCE && chosen ? (
        <Autocomplete<Choice, false, true>
          id={id}
          value={inHand ?? chosen}
          onFocus={() => setInHand(chosen)}
          onBlur={() => setInHand(null)}
          options={choices}
          disableClearable
          autoHighlight
          selectOnFocus
          noOptionsText={say("ui.nothingIsCalledThat")}
          getOptionKey={(choice) => choice.key}
          getOptionLabel={(choice) => choice.name}
          isOptionEqualToValue={(choice, now) => choice.key === now.key}
          slotProps={{ popper: { placement: "bottom-start" } }}
          onChange={(_event, choice) => {
            setInHand(null);
            onPick(choice.key);
          }}
          renderInput={(params) => <TextField {...params} variant="standard" title={chosen.name} />}
        />
      ) : (
        <NativeSelect
          value={value}
          title={name}
          inputProps={{ id }}
          onChange={(event) => onPick(event.target.value)}
        >
          {choices.map((choice) => (
            <option key={choice.key} value={choice.key}>
              {choice.name}
            </option>
          ))}
        </NativeSelect>
      )}
    </div>
  );
}
