import { Link } from "react-router";

import type { Garden, StructureLine } from "../../api/client";
import { StateMark } from "../../ui/StateMark";
import { SeasonSparkline } from "./SeasonSparkline";
import { say } from "../../texts/say";

interface Props {
  garden: Garden;
  lines: Map<string, StructureLine>;
  chosen: string | null;
  canEdit: boolean;
  onChoose: (key: string) => void;
}

/** Every bed, and how what stands on it stands. */
export function BedList({ garden, lines, chosen, canEdit, onChoose }: Props) {
  return (
    <>
      {garden.beds.map((bed) => {
        const rows = garden.structures.filter((row) => row.bed === bed.key);
        return (
          <section key={bed.key} className="rollbed" aria-label={bed.fields.name}>
            <h2>
              <button
                type="button"
                className="worded"
                aria-pressed={chosen === bed.key}
                onClick={() => onChoose(bed.key)}
              >
                {bed.fields.name}
              </button>
              {canEdit && rows.length === 0 && (
                <Link
                  className="aside"
                  to={`/gardens/${garden.id}/beds/${bed.key}/new`}
                  aria-label={say("plot.planASupportOn", { name: bed.fields.name })}
                >
                  {say("plot.planASupport")}
                </Link>
              )}
            </h2>
            {rows.map((row) => {
              const line = lines.get(row.key);
              return (
                <Link
                  key={row.key}
                  to={`/structures/${row.id}`}
                  className="rollline"
                  data-chosen={chosen === row.key}
                >
                  {line?.state ? <StateMark state={line.state} /> : <span className="rollwait" />}
                  <span className="rollwords">
                    <strong>{row.name}</strong>
                    {line && !line.state ? (
                      <span className="quiet">{line.words}</span>
                    ) : line ? (
                      <>
                        <span className="big">{line.limit}</span>
                        <span className="quiet">
                          {say("plot.needs", { words: line.words, design: line.design })}
                        </span>
                        <SeasonSparkline season={line.season} design={line.required_m_s} />
                        <span>{line.weakest}</span>
                      </>
                    ) : (
                      <span className="quiet">{say("common.calculating")}</span>
                    )}
                  </span>
                </Link>
              );
            })}
          </section>
        );
      })}
    </>
  );
}
