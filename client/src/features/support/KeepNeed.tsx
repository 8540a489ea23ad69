import { useState } from "react";
import { useNavigate } from "react-router";

import { type Edit, Refused, type Schemas } from "../../api/client";
import { askEdits } from "../../queue/asks";
import { say } from "../../texts/say";

interface Props {
  garden: number;
  bed: string;
  kept: Schemas["NeedRow"] | undefined;
  need: Omit<Schemas["ChooseIn"], "closely">;
  first: Schemas["Wants"]["first"];
}

/** What is wanted here, kept under a name to be looked at again, or forgotten. */
export function KeepNeed({ garden, bed, kept, need, first }: Props) {
  const navigate = useNavigate();
  const [name, setName] = useState<string | null>(null);
  const [refusal, setRefusal] = useState("");
  const put = async (edit: Edit, words: string, then: (made: string[]) => string) => {
    try {
      const out = await askEdits(garden, [edit], words);
      setName(null);
      await navigate(then(out.made), { replace: true });
    } catch (error) {
      setRefusal(error instanceof Refused ? error.message : say("support.theServerDidNotAnswerNothing"));
    }
  };
  const page = `/gardens/${garden}/beds/${bed}/new`;
  const keep = () => {
    const change = { ...need, wants: { ...need.wants, first }, bed, count: need.count ?? null };
    const called = (name ?? "").trim() || say("support.aNeed");
    return kept
      ? put(
          { kind: "need", act: "change", key: kept.key, change },
          say("support.changed", { name: kept.fields.name }),
          () => `${page}?need=${kept.key}`,
        )
      : put(
          { kind: "need", act: "add", key: "need", change: { ...change, name: called } },
          say("support.kept", { called }),
          (made) => `${page}?need=${made[0] ?? ""}`,
        );
  };
  return (
    <form
      className="keepneed"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      {name !== null && (
        <label className="row">
          <span className="label">{say("support.called")}</span>
          <input
            className="input"
            value={name}
            maxLength={120}
            // eslint-disable-next-line jsx-a11y/no-autofocus -- the field opens where its button was pressed
            autoFocus
            onChange={(event) => setName(event.target.value)}
          />
        </label>
      )}
      {name === null && !kept ? (
        <button type="button" className="plain" onClick={() => setName("")}>
          {say("support.saveThisNeed")}
        </button>
      ) : (
        <button type="submit" className="plain">
          {kept ? say("support.saveTheChanges") : "keep"}
        </button>
      )}
      {kept && (
        <button
          type="button"
          className="plain"
          onClick={() =>
            void put(
              { kind: "need", act: "remove", key: kept.key, change: {} },
              say("support.forgotten", { name: kept.fields.name }),
              () => page,
            )
          }
        >
          {say("support.deleteThisNeed")}
        </button>
      )}
      {refusal && (
        <p role="alert" className="refusal">
          {refusal}
        </p>
      )}
    </form>
  );
}
