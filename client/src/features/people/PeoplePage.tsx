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

const MAY = [
  ["read", "may look"],
  ["edit", "may change"],
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
  if (!garden.data || !people.data) return <p className="page quiet">Loading…</p>;
  const run = async (asked: () => Promise<Schemas["People"]>) => {
    try {
      fresh.people(id, await asked());
      setRefusal("");
      return true;
    } catch (error) {
      setRefusal(
        error instanceof Refused
          ? error.problems
              .map((p) => `${p.path}: ‘${p.given}’ cannot be used. ${sentence(p.allowed)}`)
              .join(" ") || "refused"
          : "The server did not answer.",
      );
      return false;
    }
  };
  const share = (name: string, edit: boolean) =>
    run(() => askPeople(id, "PUT", "/people", { name, may_edit: edit }, `shared with ${name}`));
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
        <h1>People</h1>
        {refusal && (
          <p role="alert" className="refusal">
            {refusal}
          </p>
        )}
        <h2>Shared with</h2>
        {people.data.shares.length === 0 && <p className="quiet">Not shared. Only you see this garden.</p>}
        <ul className="people">
          {people.data.shares.map((each) => (
            <li key={each.name}>
              <strong>{each.name}</strong>
              <Choices
                label={`What ${each.name} may do`}
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
                      `no longer shared with ${each.name}`,
                    ),
                  )
                }
              >
                Stop sharing
              </button>
            </li>
          ))}
        </ul>
        <form
          onSubmit={(event) => void submit(event)}
          aria-label="Share with an account"
          className="shareform"
        >
          <label className="row">
            <span className="label">Account</span>
            <input className="input" name="name" maxLength={150} required autoComplete="off" />
          </label>
          <Tick label="may change it too" checked={mayEdit} onTick={setMayEdit} />
          <Button type="submit">Share</Button>
        </form>
        <h2>A link to look at it</h2>
        {link ? (
          <>
            <p className="quiet">
              Anyone who has this address can look at the garden, without an account. They cannot change it.
            </p>
            <input
              className="input"
              aria-label="The link"
              readOnly
              value={link}
              onFocus={(event) => event.target.select()}
            />
            <p className="actions">
              <Button
                onClick={() => void run(() => askPeople(id, "DELETE", "/link", null, "the link withdrawn"))}
              >
                Withdraw the link
              </Button>
              <button
                type="button"
                className="plain"
                onClick={() => void run(() => askPeople(id, "POST", "/link", null, "a link to look"))}
              >
                Replace the link
              </button>
            </p>
          </>
        ) : (
          <p className="actions">
            <Button onClick={() => void run(() => askPeople(id, "POST", "/link", null, "a link to look"))}>
              Make a link
            </Button>
          </p>
        )}
        <h2>Delete this garden</h2>
        <p className="quiet">
          Deletes the garden with its beds, supports and history, also for everyone it is shared with. You can
          restore it for 30 days on your account page.
        </p>
        <p className="actions">
          <Button onClick={() => void remove()}>Delete this garden</Button>
        </p>
      </main>
    </>
  );
}
