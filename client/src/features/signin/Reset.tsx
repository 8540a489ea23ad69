import Button from "@mui/material/Button";
import { useState, type SyntheticEvent } from "react";
import { Link, useParams } from "react-router";

import { api, Refused, taken } from "../../api/client";
import { say } from "../../texts/say";

/** A new password by the link that was sent. */
export function Reset() {
  const { who = "", token = "" } = useParams();
  const [said, setSaid] = useState("");
  const [done, setDone] = useState(false);
  const submit = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const password = new FormData(event.currentTarget).get("password") as string;
    try {
      await taken(api.PUT("/api/account/reset", { body: { who, token, password } }));
      setDone(true);
    } catch (error) {
      setSaid(
        error instanceof Refused
          ? error.problems.map((p) => p.allowed).join(" ")
          : say("common.theServerDidNotAnswer"),
      );
    }
  };
  return (
    <main className="page">
      <h1>{say("signin.aNewPassword")}</h1>
      {done ? (
        <p className="lead">
          {say("signin.thePasswordIsSet")} <Link to="/">{say("signin.signInWithIt")}</Link>
        </p>
      ) : (
        <form onSubmit={(event) => void submit(event)} className="door">
          <div className="field">
            <label htmlFor="password">{say("signin.newPassword")}</label>
            <input
              id="password"
              name="password"
              type="password"
              className="input"
              autoComplete="new-password"
              required
              minLength={8}
            />
          </div>
          {said && (
            <p role="alert" className="refusal">
              {said}
            </p>
          )}
          <Button type="submit" className="strong">
            {say("signin.setIt")}
          </Button>
        </form>
      )}
    </main>
  );
}
