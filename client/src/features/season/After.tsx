import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { Link } from "react-router";

import type { Schemas } from "../../api/client";
import type { Finding } from "./useMarks";
import { say } from "../../texts/say";

interface Props {
  after: Schemas["AfterReport"];
  named: Map<string, Schemas["Standing"]>;
  onFound: ((structure: Schemas["Standing"], day: string, found: Finding) => void) | null;
}

const FINDINGS: readonly (readonly [Finding, string])[] = [
  ["stood", say("season.stood")],
  ["leans", say("season.leans")],
  ["slack", say("season.slack")],
  ["torn", say("season.torn")],
  ["fell", say("season.fell")],
];

/** After a storm: what to look at, in which order, and one tap to say what was found. */
export function After({ after, named, onFound }: Props) {
  return (
    <section aria-label={say("season.afterTheStorm")} className="storm">
      <h2>{say("season.afterTheStorm")}</h2>
      <p>{after.words}</p>
      <ol className="visits">
        {after.rows.map((row) => {
          const of = named.get(row.structure);
          if (!of) return null;
          return (
            <li key={row.structure} className="visit">
              <h3>
                <Link to={`/structures/${of.id}`}>{of.name}</Link> <span className="quiet">{of.bed}</span>
              </h3>
              <p>{row.look}</p>
              <ToggleButtonGroup
                exclusive
                aria-label={say("season.found", { name: of.name })}
                value={row.found}
                disabled={!onFound}
                onChange={(_event, found: Finding | null) => found && onFound?.(of, after.on, found)}
              >
                {FINDINGS.map(([key, name]) => (
                  <ToggleButton key={key} value={key}>
                    {name}
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
