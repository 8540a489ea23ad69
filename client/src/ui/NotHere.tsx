import { Link } from "react-router";
import { say } from "../texts/say";

export function NotHere() {
  return (
    <main className="page">
      <h1>{say("ui.thisPageDoesNotExist")}</h1>
      <p>
        {say("ui.theAddressIsWrongOrThe")} <Link to="/">{say("ui.toYourGarden")}</Link>
      </p>
    </main>
  );
}
