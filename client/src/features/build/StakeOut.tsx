import { useSize } from "../../drawing/useSize";
import type { Building } from "../../api/building";
import { say } from "../../texts/say";

type Flat = readonly [number, number];
const EDGE = 34;
const HEIGHT = 340;
const NEAR = 15; // pixels

interface Named {
  name: string;
  at: readonly [number, number];
  spots: (readonly [number, number])[];
}

/** Places drawn so near to one another that their names would lie over one another share one. */
function named(places: readonly { name: string; at: readonly [number, number] }[]): Named[] {
  const found: Named[] = [];
  for (const { name, at } of places) {
    const near = found.find((each) => Math.hypot(each.at[0] - at[0], each.at[1] - at[1]) < NEAR);
    if (near) {
      near.name += `, ${name}`;
      near.spots.push(at);
    } else found.push({ name, at, spots: [at] });
  }
  return found;
}

/** Where each place is marked: drawn from above, north up, with its corners, and as a list. */
export function StakeOut({ building }: { building: Building }) {
  const { stake } = building.report;
  const { ref, width } = useSize<HTMLDivElement>();
  if (stake.marks.length === 0) return <p>{say("build.nothingGoesIntoTheGroundThere")}</p>;
  const points: Flat[] = [...stake.corners.map((c) => c.at), ...stake.marks.map((m) => m.at)];
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const perMetre = Math.min(
    Math.max(width - 2 * EDGE, 1) / Math.max(east - west, 0.5),
    (HEIGHT - 2 * EDGE) / Math.max(north - south, 0.5),
  );
  const left = (width - (east - west) * perMetre) / 2;
  const tall = (north - south) * perMetre + 2 * EDGE;
  const at = ([x, y]: Flat): [number, number] => [
    left + (x - west) * perMetre,
    EDGE + (north - y) * perMetre,
  ];
  const first = stake.marks[0];
  const last = stake.marks[stake.marks.length - 1];
  return (
    <section className="stakeout">
      <div ref={ref}>
        {width > 0 && (
          <svg width={width} height={tall} role="img" aria-label={say("build.thePlacesToMarkFromAbove")}>
            {first &&
              stake.corners.map((corner) => {
                const [x, y] = at(corner.at);
                const ends = [first, last].flatMap((mark) =>
                  mark?.tapes.includes(`${corner.letter} `) ? [mark] : [],
                );
                return ends.map((mark) => {
                  const [u, v] = at(mark.at);
                  return (
                    <path
                      key={corner.letter + mark.name}
                      d={`M${x} ${y}L${u} ${v}`}
                      stroke="var(--hair)"
                      strokeWidth={1.5}
                    />
                  );
                });
              })}
            {stake.corners.map((corner) => {
              const [x, y] = at(corner.at);
              return (
                <g key={corner.letter}>
                  <path
                    d={`M${x - 6} ${y - 6}h12v12h-12z`}
                    fill="var(--paper)"
                    stroke="var(--ink)"
                    strokeWidth={2}
                  />
                  <text x={x} y={y - 11} textAnchor="middle" className="caption ink">
                    {corner.letter}
                  </text>
                </g>
              );
            })}
            {named(stake.marks.map((mark) => ({ name: mark.name, at: at(mark.at) }))).map((each) => (
              <g key={each.name}>
                {each.spots.map(([x, y], i) => (
                  <circle key={i} cx={x} cy={y} r={4} fill="var(--ink)" />
                ))}
                <text x={each.at[0] + 9} y={each.at[1] + 5} className="caption ink">
                  {each.name}
                </text>
              </g>
            ))}
          </svg>
        )}
      </div>
      <ul className="corners">
        {stake.corners.map((corner) => (
          <li key={corner.letter}>
            <strong>{corner.letter}</strong> {corner.text}
          </li>
        ))}
      </ul>
      <table className="marks">
        <thead>
          <tr>
            <th scope="col">{say("build.place")}</th>
            <th scope="col">{say("build.whereTheTwoTapesMeet")}</th>
            <th scope="col">{say("build.alongItsLine")}</th>
          </tr>
        </thead>
        <tbody>
          {stake.marks.map((mark, i) => (
            <tr key={`${mark.member}-${i}`}>
              <th scope="row">
                {mark.name} <span className="quiet">{mark.what}</span>
              </th>
              <td>
                {mark.tapes}
                {mark.peg && <div className="quiet">{mark.peg}</div>}
              </td>
              <td>{mark.running}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {stake.edge && <p>{stake.edge}</p>}
      {stake.lines.map((line) => (
        <p key={line}>{line}</p>
      ))}
      {stake.squares.length > 0 && (
        <>
          <h2>{say("build.square")}</h2>
          <ul>
            {stake.squares.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
