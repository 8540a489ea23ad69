import Button from "@mui/material/Button";
import { type SyntheticEvent, useState } from "react";
import { useNavigate, useParams } from "react-router";

import { api, Refused, type Schemas, taken } from "../../api/client";
import { useGarden, usePeople } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { askPeople } from "../../queue/asks";
import { Choices } from "../../ui/Choices";
import { Faulty } from "../../ui/Faulty";
import { GardenBar } from "../../ui/GardenBar";
import { sentence } from "../../ui/sentence";
import { Tick } from "../../ui/Tick";
import { say } from "../../texts/say";

const MAY = [
  ["read", say("people.mayLook")],
  ["edit", say("people.mayChange")],
] as const;

/** Who may look at a garden or change it, the read-only link, and the garden's end. */
export function PeoplePage() {
  const id = Number(useParams().gardenId);
  const garden = useGarden(id);
  const fresh = useFresh();
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState("");
  const [mayEdit, setMayEdit] = useState(false);
  const params = { path: { garden_id: id } };
  const people = usePeople(id);
  const failed = garden.error ?? people.error;
  if (failed) return <Faulty error={failed} garden={id} />;
  if (!garden.data || !people.data) return <p className="page quiet">{say("common.loading")}</p>;
  const run = async (asked: () => Promise<Schemas["People"]>) => {
    try {
      fresh.people(id, await asked());
      setRefusal("");
      return true;
    } catch (error) {
      setRefusal(
        error instanceof Refused
          ? error.problems
              .map((p) =>
                say("people.cannotBeUsed", { path: p.path, given: p.given, allowed: sentence(p.allowed) }),
              )
              .join(" ") || "refused"
          : say("common.theServerDidNotAnswer"),
      );
      return false;
    }
  };
  const share = (name: string, edit: boolean) =>
    run(() => askPeople(id, "PUT", "/people", { name, may_edit: edit }, say("people.sharedWith", { name })));
  const submit = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    if (await share((new FormData(form).get("name") as string).trim(), mayEdit)) form.reset();
  };
  const remove = async () => {
    await taken(api.DELETE("/api/gardens/{garden_id}", { params }));
    fresh.gone(id);
    await fresh.again("deleted");
    await navigate("/account");
  };
  const link = people.data.link ? `${window.location.origin}/look/${people.data.link}` : "";
  return (
    <>
      <GardenBar garden={garden.data} />
      <main className="page narrowpage">
        <h1>{say("common.people")}</h1>
        {refusal && (
          <p role="alert" className="refusal">
            {refusal}
          </p>
        )}
        <h2>{say("people.sharedWith2")}</h2>
        {people.data.shares.length === 0 && <p className="quiet">{say("people.notSharedOnlyYouSeeThis")}</p>}
        <ul className="people">
          {people.data.shares.map((each) => (
            <li key={each.name}>
              <strong>{each.name}</strong>
              <Choices
                label={say("people.whatMayDo", { name: each.name })}
                value={each.may_edit ? "edit" : "read"}
                choices={MAY}
                onPick={(may) => void share(each.name, may === "edit")}
              />
              <button
                type="button"
                className="plain"
                onClick={() =>
                  void run(() =>
                    askPeople(
                      id,
                      "DELETE",
                      `/people/${encodeURIComponent(each.name)}`,
                      null,
                      say("people.noLongerSharedWith", { name: each.name }),
                    ),
                  )
                }
              >
                {say("people.stopSharing")}
              </button>
            </li>
          ))}
        </ul>
        <form
          onSubmit={(event) => void submit(event)}
          aria-label={say("people.shareWithAnAccount")}
          className="shareform"
        >
          <label className="row">
            <span className="label">{say("people.account")}</span>
            <input className="input" name="name" maxLength={150} required autoComplete="off" />
          </label>
          <Tick label={say("people.mayChangeItToo")} checked={mayEdit} onTick={setMayEdit} />
          <Button type="submit">{say("people.share")}</Button>
        </form>
        <h2>{say("people.aLinkToLookAtIt")}</h2>
        {link ? (
          <>
            <p className="quiet">{say("people.anyoneWhoHasThisAddressCan")}</p>
            <input
              className="input"
              aria-label={say("people.theLink")}
              readOnly
              value={link}
              onFocus={(event) => event.target.select()}
            />
            <p className="actions">
              <Button
                onClick={() =>
                  void run(() => askPeople(id, "DELETE", "/link", null, say("people.theLinkWithdrawn")))
                }
              >
                {say("people.withdrawTheLink")}
              </Button>
              <button
                type="button"
                className="plain"
                onClick={() =>
                  void run(() => askPeople(id, "POST", "/link", null, say("people.aLinkToLook")))
                }
              >
                {say("people.replaceTheLink")}
              </button>
            </p>
          </>
        ) : (
          <p className="actions">
            <Button
              onClick={() => void run(() => askPeople(id, "POST", "/link", null, say("people.aLinkToLook")))}
            >
              {say("people.makeALink")}
            </Button>
          </p>
        )}
        <h2>{say("people.deleteThisGarden")}</h2>
        <p className="quiet">{say("people.deletesTheGardenWithItsBeds")}</p>
        <p className="actions">
          <Button onClick={() => void remove()}>{say("people.deleteThisGarden")}</Button>
        </p>
      </main>
    </>
  );
}
