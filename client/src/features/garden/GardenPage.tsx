import { Link, useParams } from "react-router";

import type { Schemas } from "../../api/client";
import { useGarden } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { StateMark } from "../../ui/StateMark";
import { Freeboard } from "./Freeboard";
import { GardenSettings } from "./GardenSettings";
import { NewBed } from "./NewBed";

/** Beds and what stands on them: how strong, what goes first, when. */
export function GardenPage() {
  const garden = useGarden(Number(useParams().gardenId));
  if (garden.isPending) return <p className="page quiet">One moment…</p>;
  if (garden.isError) return <NotHere />;
  const { data } = garden;
  return (
    <>
      <Bar garden={data}>
        <span className="grow" />
      </Bar>
      <main className="page">
        <h1 style={{ overflowWrap: "anywhere" }}>{data.name}</h1>
        <GardenSettings garden={data} />
        {data.beds.length === 0 && (
          <p className="lead">
            No bed yet. Give the first one a name and its size; the next step fills in a whole fence for it, every value with its reason.
          </p>
        )}
        {data.beds.map((bed) => (
          <section key={bed.id} className="bedrow" aria-label={bed.name}>
            <div>
              <h2 style={{ overflowWrap: "anywhere" }}>{bed.name}</h2>
              <p className="quiet" style={{ fontSize: 14, margin: "2px 0 6px" }}>
                {bed.words}
              </p>
              <Link to={`/gardens/${data.id}/beds/${bed.id}/new`}>New fence on this bed</Link>
            </div>
            <div>
              {bed.structures.length === 0 && <p className="quiet">Nothing stands here yet.</p>}
              {bed.structures.map((line) => (
                <StructureLine key={line.id} line={line} />
              ))}
            </div>
          </section>
        ))}
        <NewBed garden={data} open={data.beds.length === 0} />
      </main>
    </>
  );
}

function StructureLine({ line }: { line: Schemas["StructureLine"] }) {
  return (
    <Link to={`/structures/${line.id}`} className="structureline">
      <StateMark state={line.state} />
      <span style={{ overflowWrap: "anywhere", minWidth: 0 }}>
        <strong>{line.name}</strong>
        <span className="quiet">{line.crops}</span>
      </span>
      <span>
        <strong>{line.limit}</strong>
        <span className="quiet">
          {line.words} at {line.design}
        </span>
      </span>
      <Freeboard season={line.season} design={line.design_m_s} />
      <span>
        {line.weakest}
        <br />
        <span className="quiet">{line.week}</span>
      </span>
    </Link>
  );
}
