import { useColorScheme } from "@mui/material/styles";
import { type ReactNode, useState } from "react";
import { Link } from "react-router";

import { api, taken } from "../api/client";
import { useSession } from "../api/queries";
import { useFresh } from "../api/useFresh";
import { changePlace } from "../queue/asks";
import { forgetSaid } from "../api/forgetSaid";
import { Kept } from "./Kept";
import { SetAside } from "./SetAside";
import { say } from "../texts/say";

/** A post, a line between, and what it carries: the mark. */
const Mark = () => (
  <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden="true">
    <path d="M4 1v20M18 1v20M4 5q7 4 14 0M4 11q7 4 14 0" fill="none" stroke="currentColor" strokeWidth="2" />
  </svg>
);

interface Props {
  children: ReactNode;
  garden?: { id: number; units: "metric" | "imperial"; role: "owner" | "edit" | "read" };
}

/** The line at the top: where one is, what was done, units and light. */
export function Bar({ children, garden }: Props) {
  const { mode, systemMode, setMode } = useColorScheme();
  const session = useSession();
  const [open, setOpen] = useState(false);
  const fresh = useFresh();
  const dark = (mode === "system" ? systemMode : mode) === "dark";
  const units = garden?.units === "imperial" ? "metric" : "imperial";
  const changeUnits = async () => {
    if (!garden) return;
    try {
      await changePlace(
        garden.id,
        { units },
        say("ui.measuredIn", { units: units === "imperial" ? say("ui.feetAndInches") : "metres" }),
      );
    } finally {
      await fresh.everything();
    }
  };
  const leave = async () => {
    await taken(api.DELETE("/api/session"));
    await forgetSaid();
    fresh.nothing();
    window.location.assign("/");
  };
  return (
    <>
      <header className="bar noprint" data-open={open}>
        <button
          type="button"
          className="skip"
          onClick={() => {
            const main = document.querySelector<HTMLElement>("main");
            main?.setAttribute("tabindex", "-1");
            main?.focus();
          }}
        >
          {say("ui.skipToThePage")}
        </button>
        <Link to="/" className="wordmark" aria-label={say("ui.ascentToTheGarden")}>
          <Mark />
          <span className="wide">{say("ui.ascent")}</span>
        </Link>
        {children}
        {garden && garden.role !== "read" && <Kept garden={garden.id} />}
        <button type="button" className="plain slim" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? say("ui.closeMenu") : say("ui.menu")}
        </button>
        <div className="barmore" data-open={open}>
          <button
            type="button"
            className="plain"
            title="Ctrl K or /"
            onClick={() => window.dispatchEvent(new Event("ascent-palette"))}
          >
            {say("ui.find")}
          </button>
          {garden && garden.role !== "read" && (
            <button type="button" className="plain" onClick={() => void changeUnits()}>
              {units === "imperial" ? say("ui.switchToFeetAndInches") : say("ui.switchToMetres")}
            </button>
          )}
          <button type="button" className="plain" onClick={() => setMode(dark ? "light" : "dark")}>
            {dark ? say("ui.lightTheme") : say("ui.darkTheme")}
          </button>
          {session.data?.name && (
            <>
              <Link
                to="/account"
                className="plain"
                aria-label={say("ui.accountOf", { name: session.data.name })}
              >
                {say("ui.account")}
              </Link>
              <button type="button" className="plain" onClick={() => void leave()}>
                {say("ui.signOut")}
              </button>
            </>
          )}
        </div>
      </header>
      {garden && garden.role !== "read" && <SetAside garden={garden.id} units={garden.units} />}
    </>
  );
}
