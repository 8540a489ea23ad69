import Button from "@mui/material/Button";
import { useQueryClient } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";

import { Refused } from "../../api/client";
import { signIn } from "../../api/queries";
import { Hedge } from "./Hedge";

export function SignIn() {
  const queries = useQueryClient();
  const [refusal, setRefusal] = useState("");
  const submit = async (event: SyntheticEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const given = (name: string) => (form.get(name) as string);
    try {
      queries.setQueryData(["session"], await signIn(given("name"), given("password")));
    } catch (error) {
      setRefusal(error instanceof Refused ? (error.problems[0]?.allowed ?? "refused") : "the server does not answer");
    }
  };
  return (
    <main className="page">
      <form onSubmit={(event) => void submit(event)} style={{ maxWidth: 320, display: "grid", gap: 16, marginTop: "8vh" }}>
        <h1>Ascent</h1>
        <p className="quiet">Trellises that carry the crop in August and stand up in a storm.</p>
        <div className="field">
          <label htmlFor="name">Name</label>
          <input id="name" name="name" className="input" autoComplete="username" required />
        </div>
        <div className="field">
          <label htmlFor="password">Password</label>
          <input id="password" name="password" type="password" className="input" autoComplete="current-password" required />
        </div>
        {refusal && (
          <p role="alert" className="refusal">
            {refusal}
          </p>
        )}
        <Button type="submit" className="strong">
          Sign in
        </Button>
      </form>
      <Hedge />
    </main>
  );
}
