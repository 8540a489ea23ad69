import Button from "@mui/material/Button";
import { useEffect } from "react";
import { Link, useRouteError } from "react-router";

import { lostChunk, reloadOnce } from "./reloadOnce";

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
      <h1>{lost ? "Ascent has been updated" : "This page cannot be shown"}</h1>
      <p>
        {lost
          ? "A part of this page is no longer on the server. Reload the page."
          : "A program error stopped it. Everything you saved is still there."}
      </p>
      <p className="actions">
        <Button className="strong" onClick={() => window.location.reload()}>
          Reload the page
        </Button>
        <Link to="/account">Your gardens</Link>
      </p>
    </main>
  );
}
