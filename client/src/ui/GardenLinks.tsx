import { NavLink } from "react-router";

import type { Garden } from "../api/client";

const PAGES = [
  ["", "plan"],
  ["/week", "this week"],
  ["/year", "year"],
  ["/shed", "shed"],
  ["/parts", "shopping"],
  ["/history", "history"],
  ["/files", "files"],
  ["/people", "people"],
] as const;

/** The pages of one garden. */
export function GardenLinks({ garden }: { garden: Pick<Garden, "id" | "role"> }) {
  return (
    <nav className="gardenlinks" aria-label="Pages of this garden">
      {PAGES.filter(([path]) => path !== "/people" || garden.role === "owner").map(([path, name]) => (
        <NavLink key={path} to={`/gardens/${garden.id}${path}`} end>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
