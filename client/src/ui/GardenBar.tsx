import { Link } from "react-router";

import type { Garden } from "../api/client";
import { Bar } from "./Bar";
import { GardenLinks } from "./GardenLinks";

/** The line at the top of a garden's own pages. */
export function GardenBar({ garden }: { garden: Garden }) {
  return (
    <Bar garden={garden}>
      <span className="grow trail">
        <Link to={`/gardens/${garden.id}`} title={garden.name}>
          {garden.name}
        </Link>
      </span>
      <GardenLinks garden={garden} />
    </Bar>
  );
}
