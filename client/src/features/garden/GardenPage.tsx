import { Link, useParams } from "react-router";

import { useGarden } from "../../api/queries";
import { Bar } from "../../ui/Bar";
import { NotHere } from "../../ui/NotHere";
import { StateMark } from "../../ui/StateMark";
import { Freeboard } from "./Freeboard";
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
        <p className="quiet" style={{ margin: "4px 0 18px" }}>
          Each structure with the gust it holds to at the plant, what goes first, and the week it is least.
        </p>
        {data.beds.length === 0 && (
          <p style={{ padding: "18px 0" }}>No bed yet. Give the first one a name and its size; then plan a fence on it.</p>
        )}
        {data.beds.map((bed) => (
          <section key={bed.id} className="bedrow" aria-label={bed.name}>
            <div>
              <h2 style={{ overflowWrap: "anywhere" }}>{bed.name}</h2>
              <p className="quiet" style={{ fontSize: 13.5 }}>
                {bed.words}
              </p>
              <Link to={`/gardens/${data.id}/beds/${bed.id}/new`}>New fence on this bed</Link>
            </div>
            <div>
              {bed.structures.length === 0 && <p className="quiet">Nothing stands here yet.</p>}
              {bed.structures.map((line) => (
                <Link key={line.id} to={`/structures/${line.id}`} className="structureline">
                  <StateMark state={line.state} />
                  <span style={{ overflowWrap: "anywhere", minWidth: 0 }}>
                    <strong style={{ fontSize: 16 }}>{line.name}</strong>
                    <span className="quiet">{line.crops}</span>
                  </span>
                  <span>
                    <strong>{line.limit}</strong>
                    <Freeboard limit={line.limit_m_s} design={line.design_m_s} />
                    <span className="quiet">
                      {line.words} at {line.design}
                    </span>
                  </span>
                  <span>
                    {line.weakest}
                    <br />
                    <span className="quiet">{line.week}</span>
                  </span>
                </Link>
              ))}
            </div>
          </section>
        ))}
        <NewBed garden={data} open={data.beds.length === 0} />
      </main>
    </>
  );
}
