import Button from "@mui/material/Button";
import { useState, type SyntheticEvent } from "react";
import { Link, useParams } from "react-router";

import { api, Refused, taken } from "../../api/client";

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
          : "The server did not answer.",
      );
    }
  };
  return (
    <main className="page">
      <h1>A new password</h1>
      {done ? (
        <p className="lead">
          The password is set. <Link to="/">Sign in with it</Link>
        </p>
      ) : (
        <form onSubmit={(event) => void submit(event)} className="door">
          <div className="field">
            <label htmlFor="password">New password</label>
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
            Set it
          </Button>
        </form>
      )}
    </main>
  );
}
