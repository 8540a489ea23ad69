import Button from "@mui/material/Button";
import { useEffect } from "react";
import { Link, useRouteError } from "react-router";

import { lostChunk, reloadOnce } from "./reloadOnce";
import { say } from "../texts/say";

/** What stands where a page has failed. For a part of the program that is gone it is reloaded once. */
export function Broken() {
  const error = useRouteError();
  const lost = lostChunk(error);
  useEffect(() => {
    if (lost) reloadOnce();
    else console.error(error);
  }, [error, lost]);
  return (
    <main className="page">
      <h1>{lost ? say("ui.ascentHasBeenUpdated") : say("ui.thisPageCannotBeShown")}</h1>
      <p>{lost ? say("ui.aPartOfThisPageIs") : say("ui.aProgramErrorStoppedItEverything")}</p>
      <p className="actions">
        <Button className="strong" onClick={() => window.location.reload()}>
          {say("ui.reloadThePage")}
        </Button>
        <Link to="/account">{say("ui.yourGardens")}</Link>
      </p>
    </main>
  );
}
