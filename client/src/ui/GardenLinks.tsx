import { NavLink } from "react-router";

import type { Garden } from "../api/client";
import { say } from "../texts/say";

const PAGES = [
  ["", say("ui.plan")],
  ["/week", say("ui.thisWeek")],
  ["/year", say("ui.year")],
  ["/log", say("ui.log")],
  ["/shed", say("ui.shed")],
  ["/parts", say("ui.shopping")],
  ["/history", say("ui.history2")],
  ["/files", say("ui.files2")],
  ["/people", say("ui.people")],
] as const;

/** The pages of one garden. */
export function GardenLinks({ garden }: { garden: Pick<Garden, "id" | "role"> }) {
  return (
    <nav className="gardenlinks" aria-label={say("ui.pagesOfThisGarden")}>
      {PAGES.filter(([path]) => path !== "/people" || garden.role === "owner").map(([path, name]) => (
        <NavLink key={path} to={`/gardens/${garden.id}${path}`} end>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
