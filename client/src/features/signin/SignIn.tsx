import Button from "@mui/material/Button";
import { type SyntheticEvent, useState } from "react";

import { api, Refused, type Schemas, taken } from "../../api/client";
import { useSession } from "../../api/queries";
import { useFresh } from "../../api/useFresh";
import { Letters } from "../../ui/Letters";
import { SignInDrawing } from "./SignInDrawing";
import { say } from "../../texts/say";

type Way = "in" | "up" | "forgot";
const DO: Record<Way, string> = {
  in: say("signin.signIn"),
  up: say("signin.makeTheAccount"),
  forgot: say("signin.sendALink"),
};

/** The door: sign in, make an account, or ask for a new password. */
export function SignIn() {
  const fresh = useFresh();
  const session = useSession();
  const [way, setWay] = useState<Way>("in");
  const [refusals, setRefusals] = useState<{ path: string; allowed: string }[]>([]);
  const [sent, setSent] = useState(false);
  const enter = async (asked: Promise<Schemas["SessionOut"]>) => {
    await fresh.signedIn(await asked);
  };
  const submit = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const given = (name: string) => (form.get(name) ?? "") as string;
    try {
      if (way === "in")
        await enter(
          taken(api.POST("/api/session", { body: { name: given("name"), password: given("password") } })),
        );
      else if (way === "up")
        await enter(
          taken(
            api.POST("/api/account", {
              body: { name: given("name"), mail: given("mail"), password: given("password") },
            }),
          ),
        );
      else {
        await taken(api.POST("/api/account/reset", { body: { mail: given("mail") } }));
        setSent(true);
      }
      setRefusals([]);
    } catch (error) {
      setRefusals(
        error instanceof Refused
          ? error.problems
          : [{ path: "", allowed: say("signin.theServerDidNotAnswerTry") }],
      );
    }
  };
  const go = (next: Way) => {
    setWay(next);
    setRefusals([]);
    setSent(false);
  };
  const refusal = (path: string) =>
    refusals.filter(
      (each) => each.path === path || (path === "password" && !["name", "mail"].includes(each.path)),
    );
  const field = (
    name: "name" | "mail" | "password",
    label: string,
    more: React.InputHTMLAttributes<HTMLInputElement>,
  ) => (
    <div className="field">
      <label htmlFor={name}>{label}</label>
      <input id={name} name={name} className="input" aria-invalid={refusal(name).length > 0} {...more} />
      {refusal(name).map((each) => (
        <p key={each.allowed} role="alert" className="refusal">
          {each.allowed}
        </p>
      ))}
    </div>
  );
  return (
    <main className="page">
      <form onSubmit={(event) => void submit(event)} className="door">
        <h1>{say("signin.ascent")}</h1>
        <p className="quiet">{say("signin.trellisesThatCarryTheCropIn")}</p>
        {way !== "forgot" &&
          field("name", "Name", { autoComplete: "username", required: true, maxLength: 150 })}
        {way !== "in" &&
          field("mail", way === "up" ? say("signin.mailForAForgottenPassword") : "Mail", {
            type: "email",
            autoComplete: "email",
            required: way === "forgot",
          })}
        {way !== "forgot" &&
          field("password", "Password", {
            type: "password",
            autoComplete: way === "up" ? "new-password" : "current-password",
            required: true,
            ...(way === "up" ? { minLength: 8 } : {}),
          })}
        {sent && <p role="status">{say("signin.ifAnAccountHasThatAddress")}</p>}
        <Button type="submit" className="strong">
          {DO[way]}
        </Button>
        <p className="actions">
          {way !== "in" && (
            <button type="button" className="plain" onClick={() => go("in")}>
              {say("signin.signInInstead")}
            </button>
          )}
          {way === "in" && session.data?.sign_up && (
            <button type="button" className="plain" onClick={() => go("up")}>
              {say("signin.makeAnAccount")}
            </button>
          )}
          {way === "in" && (
            <button type="button" className="plain" onClick={() => go("forgot")}>
              {say("signin.forgottenPassword")}
            </button>
          )}
          {session.data?.demo && (
            <button
              type="button"
              className="plain"
              onClick={() => void enter(taken(api.POST("/api/session/demo")))}
            >
              {say("signin.backToTheDemo")}
            </button>
          )}
        </p>
        {session.data?.demo && <Letters />}
      </form>
      <SignInDrawing />
    </main>
  );
}
