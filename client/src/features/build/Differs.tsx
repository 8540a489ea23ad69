import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

import type { Step } from "../../api/building";
import { Choices } from "../../ui/Choices";
import { Pick } from "../../ui/Pick";
import type { Written } from "./useRecord";
import { say } from "../../texts/say";

interface Props {
  step: Step;
  written: Written;
  onClose: () => void;
}

const ALL = "";

/** What went in otherwise than planned, in the words of its step; it is checked as soon as it is written. */
export function Differs({ step, written, onClose }: Props) {
  const [name, setName] = useState(step.may_differ[0]?.option ?? "");
  const [members, setMembers] = useState<readonly string[]>([]);
  const [value, setValue] = useState("");
  const [note, setNote] = useState("");
  const may = step.may_differ.find((each) => each.option === name);
  if (!may) return null;
  const chosen = may.choices.length > 0 ? value || (may.choices[0]?.[0] ?? "") : value.trim();
  const toggle = (member: string) =>
    setMembers((now) => (now.includes(member) ? now.filter((each) => each !== member) : [...now, member]));
  const save = () => {
    const those = (members.length ? members : [ALL]).map((member) => ({
      option: may.option,
      value: chosen,
      member,
      step: step.key,
      note: note.trim(),
    }));
    written.differ(those, say("build.insteadOf", { label: may.label, chosen, planned: may.planned }));
    onClose();
  };
  return (
    <form
      className="differs"
      onSubmit={(event) => {
        event.preventDefault();
        if (chosen) save();
      }}
    >
      {step.may_differ.length > 1 && (
        <Choices
          label={say("build.whatDiffers")}
          value={name}
          choices={step.may_differ.map((each) => [each.option, each.label] as const)}
          onPick={(next) => {
            setName(next);
            setMembers([]);
            setValue("");
          }}
        />
      )}
      {may.members.length > 1 && (
        <div className="whichones" role="group" aria-label={say("build.whichOnes")}>
          <button type="button" aria-pressed={members.length === 0} onClick={() => setMembers([])}>
            {say("build.all")}
          </button>
          {may.members.map(([member, called]) => (
            <button
              key={member}
              type="button"
              aria-pressed={members.includes(member)}
              onClick={() => toggle(member)}
            >
              {called}
            </button>
          ))}
        </div>
      )}
      {may.choices.length > 0 ? (
        <Pick
          label={may.label}
          value={chosen}
          choices={may.choices.map(([key, called]) => ({ key, name: called }))}
          onPick={setValue}
        />
      ) : (
        <TextField
          label={say("build.asItCameOut", { label: may.label })}
          helperText={say("build.planned", { planned: may.planned })}
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
      )}
      <TextField
        label={say("build.whyIfYouLike")}
        value={note}
        slotProps={{ htmlInput: { maxLength: 300 } }}
        onChange={(event) => setNote(event.target.value)}
      />
      <p className="actions">
        <Button type="submit" className="strong" disabled={!chosen}>
          {say("build.saveTheDifference")}
        </Button>
        <Button onClick={onClose}>{say("common.cancel")}</Button>
      </p>
    </form>
  );
}
