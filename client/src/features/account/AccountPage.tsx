import Button from "@mui/material/Button";
import { type SyntheticEvent, useState } from "react";
import { Link, useNavigate } from "react-router";

import { api, exactly, type Garden, Refused, taken } from "../../api/client";
import { useDeletedGardens, useGardens, useSession } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { askNewGarden } from "../../queue/asks";
import { forgetSaid } from "../../api/forgetSaid";
import { queue } from "../../queue/queue";
import { Bar } from "../../ui/Bar";
import { Letters } from "../../ui/Letters";

const ROLES = { owner: "", edit: "you may change it", read: "you may look" };

const day = (date: string) => new Date(date).toLocaleDateString("en-GB", { dateStyle: "long" });

/** One's gardens, password, and the account's end. */
export function AccountPage() {
  const session = useSession();
  const gardens = useGardens();
  const deleted = useDeletedGardens();
  const fresh = useFresh();
  const navigate = useNavigate();
  const [said, setSaid] = useState("");
  if (!session.data || !gardens.data) return <p className="page quiet">Loading…</p>;
  const tell = (error: unknown) =>
    setSaid(
      error instanceof Refused
        ? error.problems.map((p) => `${p.path}: ${p.allowed}`).join(". ") || "refused"
        : "The server did not answer.",
    );
  const given = (event: SyntheticEvent<HTMLFormElement>, name: string) =>
    new FormData(event.currentTarget).get(name) as string;
  const newGarden = async () => {
    try {
      const made = await askNewGarden({ name: `${session.data.name ?? "My"}’s garden` });
      await fresh.again("gardens");
      await navigate(`/gardens/${made.id}`);
    } catch (error) {
      tell(error);
    }
  };
  const leave = async (id: number) => {
    try {
      await taken(api.DELETE("/api/gardens/{garden_id}/share", { params: { path: { garden_id: id } } }));
      await fresh.again("gardens");
    } catch (error) {
      tell(error);
    }
  };
  const restore = async (id: number) => {
    try {
      const params = { path: { garden_id: id } };
      fresh.garden(await exactly<Garden>(api.POST("/api/gardens/{garden_id}/restore", { params })));
      await fresh.again("gardens", "deleted");
    } catch (error) {
      tell(error);
    }
  };
  const changePassword = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = event.currentTarget;
    try {
      await taken(
        api.PUT("/api/account/password", { body: { old: given(event, "old"), new: given(event, "new") } }),
      );
      form.reset();
      setSaid("The password is changed. Other devices are signed out.");
    } catch (error) {
      tell(error);
    }
  };
  const leaveForGood = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    try {
      await taken(api.DELETE("/api/account", { body: { password: given(event, "password") } }));
      await queue.forgetMine();
      await forgetSaid();
      fresh.nothing();
      window.location.assign("/");
    } catch (error) {
      tell(error);
    }
  };
  return (
    <>
      <Bar>
        <span className="grow" />
      </Bar>
      <main className="page narrowpage">
        <h1>{session.data.name}</h1>
        {session.data.mail && <p className="quiet">{session.data.mail}</p>}
        {said && (
          <p role="status" className="refusal">
            {said}
          </p>
        )}
        <h2>Gardens</h2>
        <ul className="people">
          {gardens.data.map((garden) => (
            <li key={garden.id}>
              <Link to={`/gardens/${garden.id}`}>{garden.name}</Link>
              {garden.role !== "owner" && (
                <>
                  <span className="quiet">
                    of {garden.owner}; {ROLES[garden.role]}
                  </span>
                  <button
                    type="button"
                    className="plain"
                    aria-label={`Leave ${garden.name} of ${garden.owner}`}
                    onClick={() => void leave(garden.id)}
                  >
                    leave
                  </button>
                </>
              )}
            </li>
          ))}
        </ul>
        <p className="actions">
          <Button onClick={() => void newGarden()}>New garden</Button>
        </p>
        {deleted.data && deleted.data.length > 0 && (
          <>
            <h2>Deleted gardens</h2>
            <ul className="people">
              {deleted.data.map((garden) => (
                <li key={garden.id}>
                  {garden.name}
                  <span className="quiet">deleted for good after {day(garden.until)}</span>
                  <button
                    type="button"
                    className="plain"
                    aria-label={`Restore ${garden.name}`}
                    onClick={() => void restore(garden.id)}
                  >
                    Restore
                  </button>
                </li>
              ))}
            </ul>
          </>
        )}
        {session.data.demo && (
          <p className="quiet">
            The account of the demo has no password. To try the rest, sign out and make an account.
          </p>
        )}
        <h2>Password</h2>
        <form onSubmit={(event) => void changePassword(event)} aria-label="Change the password">
          <label className="row">
            <span className="label">Now</span>
            <input className="input" type="password" name="old" autoComplete="current-password" required />
          </label>
          <label className="row">
            <span className="label">New</span>
            <input
              className="input"
              type="password"
              name="new"
              autoComplete="new-password"
              required
              minLength={8}
            />
          </label>
          <Button type="submit">Change the password</Button>
        </form>
        <h2>Delete this account</h2>
        <p className="quiet">
          Deletes the account with all its gardens and their history. This is at once and for good.
        </p>
        <form onSubmit={(event) => void leaveForGood(event)} aria-label="Delete the account">
          <label className="row">
            <span className="label">Password</span>
            <input
              className="input"
              type="password"
              name="password"
              autoComplete="current-password"
              required
            />
          </label>
          <Button type="submit">Delete the account</Button>
        </form>
        {session.data.demo && <Letters />}
      </main>
    </>
  );
}
