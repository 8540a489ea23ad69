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
import { say } from "../../texts/say";

const ROLES = { owner: "", edit: say("account.youMayChangeIt"), read: say("account.youMayLook") };

const day = (date: string) => new Date(date).toLocaleDateString("en-GB", { dateStyle: "long" });

/** One's gardens, password, and the account's end. */
export function AccountPage() {
  const session = useSession();
  const gardens = useGardens();
  const deleted = useDeletedGardens();
  const fresh = useFresh();
  const navigate = useNavigate();
  const [said, setSaid] = useState("");
  if (!session.data || !gardens.data) return <p className="page quiet">{say("common.loading")}</p>;
  const tell = (error: unknown) =>
    setSaid(
      error instanceof Refused
        ? error.problems.map((p) => `${p.path}: ${p.allowed}`).join(". ") || "refused"
        : say("common.theServerDidNotAnswer"),
    );
  const given = (event: SyntheticEvent<HTMLFormElement>, name: string) =>
    new FormData(event.currentTarget).get(name) as string;
  const newGarden = async () => {
    try {
      const made = await askNewGarden({ name: say("account.sGarden", { name: session.data.name ?? "My" }) });
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
      setSaid(say("account.thePasswordIsChangedOtherDevices"));
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
        <h2>{say("account.gardens")}</h2>
        <ul className="people">
          {gardens.data.map((garden) => (
            <li key={garden.id}>
              <Link to={`/gardens/${garden.id}`}>{garden.name}</Link>
              {garden.role !== "owner" && (
                <>
                  <span className="quiet">
                    {say("account.of", { owner: garden.owner, ROLES: ROLES[garden.role] })}
                  </span>
                  <button
                    type="button"
                    className="plain"
                    aria-label={say("account.leaveOf", { name: garden.name, owner: garden.owner })}
                    onClick={() => void leave(garden.id)}
                  >
                    {say("account.leave")}
                  </button>
                </>
              )}
            </li>
          ))}
        </ul>
        <p className="actions">
          <Button onClick={() => void newGarden()}>{say("account.newGarden")}</Button>
        </p>
        {deleted.data && deleted.data.length > 0 && (
          <>
            <h2>{say("account.deletedGardens")}</h2>
            <ul className="people">
              {deleted.data.map((garden) => (
                <li key={garden.id}>
                  {garden.name}
                  <span className="quiet">
                    {say("account.deletedForGoodAfter", { until: day(garden.until) })}
                  </span>
                  <button
                    type="button"
                    className="plain"
                    aria-label={say("account.restore", { name: garden.name })}
                    onClick={() => void restore(garden.id)}
                  >
                    {say("account.restore2")}
                  </button>
                </li>
              ))}
            </ul>
          </>
        )}
        {session.data.demo && <p className="quiet">{say("account.theAccountOfTheDemoHas")}</p>}
        <h2>{say("account.password")}</h2>
        <form onSubmit={(event) => void changePassword(event)} aria-label={say("account.changeThePassword")}>
          <label className="row">
            <span className="label">{say("account.now")}</span>
            <input className="input" type="password" name="old" autoComplete="current-password" required />
          </label>
          <label className="row">
            <span className="label">{say("account.new")}</span>
            <input
              className="input"
              type="password"
              name="new"
              autoComplete="new-password"
              required
              minLength={8}
            />
          </label>
          <Button type="submit">{say("account.changeThePassword")}</Button>
        </form>
        <h2>{say("account.deleteThisAccount")}</h2>
        <p className="quiet">{say("account.deletesTheAccountWithAllIts")}</p>
        <form onSubmit={(event) => void leaveForGood(event)} aria-label={say("account.deleteTheAccount")}>
          <label className="row">
            <span className="label">{say("account.password")}</span>
            <input
              className="input"
              type="password"
              name="password"
              autoComplete="current-password"
              required
            />
          </label>
          <Button type="submit">{say("account.deleteTheAccount")}</Button>
        </form>
        {session.data.demo && <Letters />}
      </main>
    </>
  );
}
