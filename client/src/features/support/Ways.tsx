import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";

import type { Schemas } from "../../api/client";
import { Glance, spanOf } from "../../drawing/Glance";
import { Tick } from "../../ui/Tick";

type Way = Schemas["KindReport"];

interface Props {
  supports: readonly Schemas["Support"][];
  ways: ReadonlyMap<string, Way>;
  places: readonly Schemas["PlaceReport"][];
  chosen: string;
  pointed: string;
  onChoose: (family: string) => void;
  onPoint: (family: string) => void;
  /** Kinds kept to be compared, two at most. */
  kept: readonly string[];
  onKeep: (family: string) => void;
}

const HEADS = ["holds to", "fails", "a season", "to buy", "work", "shortest-lived", "later"];

/**
 * Every kind of support compared: those that will do in order with why, those that are still to be looked at,
 * and those that will not do with what stops them.
 */
export function Ways({ supports, ways, places, chosen, pointed, onChoose, onPoint, kept, onKeep }: Props) {
  const order = places.map((place) => place.family).filter((family) => ways.has(family));
  const name = new Map(supports.map((support) => [support.family, support]));
  const against = supports.filter((support) => (ways.get(support.family)?.against.length ?? 0) > 0);
  const left = supports.filter((support) => !order.includes(support.family) && !against.includes(support));
  const span = spanOf([...ways.values()].map((way) => way.sketch));
  const button = (family: string) => {
    const support = name.get(family);
    const way = ways.get(family);
    return (
      support && (
        <button
          type="button"
          className="kind"
          aria-pressed={family === chosen}
          data-score={support.score}
          onClick={() => onChoose(family)}
        >
          {way ? <Glance sketch={way.sketch} span={span} /> : <Glance sketch={support.sketch} />}
          <strong>{support.name}</strong>
          <span className="quiet">{support.score_text}</span>
        </button>
      )
    );
  };
  return (
    <div className="ways" role="group" aria-label="Kind of support">
      {order.length > 0 && (
        <div className="comparing">
          <Table size="small" className="compared">
            <TableHead>
              <TableRow>
                <TableCell>kind</TableCell>
                {HEADS.map((head) => (
                  <TableCell key={head}>{head}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {order.map((family, row) => {
                const way = ways.get(family);
                const place = places.find((each) => each.family === family);
                return (
                  way && (
                    <TableRow
                      key={family}
                      selected={family === chosen || family === pointed}
                      onPointerEnter={() => onPoint(family)}
                      onPointerLeave={() => onPoint("")}
                    >
                      <TableCell>
                        <div className="of">
                          <span className="rank">{row + 1}</span>
                          {button(family)}
                          <div className="quiet why">
                            {place?.reasons.join(" ")}
                            <Tick
                              label="compare"
                              checked={kept.includes(family)}
                              onTick={() => onKeep(family)}
                            />
                          </div>
                        </div>
                      </TableCell>
                      <TableCell data-label={HEADS[0]}>
                        {way.told.limit}
                        <div className="quiet">{way.state_words}</div>
                      </TableCell>
                      <TableCell data-label={HEADS[1]}>
                        {way.told.once}
                        <div className="quiet">
                          {way.told.weakest} first; crop {way.told.margin}
                        </div>
                      </TableCell>
                      <TableCell data-label={HEADS[2]} className="figure">
                        {way.told.yearly}
                        <div className="quiet">{way.told.crop}</div>
                      </TableCell>
                      <TableCell data-label={HEADS[3]} className="figure">
                        {way.told.cost}
                        {way.told.own && <div className="quiet">{way.told.own}</div>}
                      </TableCell>
                      <TableCell data-label={HEADS[4]}>
                        {way.told.minutes}
                        <div className="quiet">
                          {way.told.people === "1" ? "alone" : `${way.told.people} people`}
                        </div>
                      </TableCell>
                      <TableCell data-label={HEADS[5]}>{way.told.life}</TableCell>
                      <TableCell data-label={HEADS[6]}>
                        {way.told.moves}
                        <div className="quiet">
                          {way.told.faces}; {way.told.plants} plants
                          {way.told.where && `; ${way.told.where}`}
                        </div>
                      </TableCell>
                    </TableRow>
                  )
                );
              })}
            </TableBody>
          </Table>
        </div>
      )}
      {left.length > 0 && (
        <div className="kinds" aria-label="Still to be looked at">
          {left.map((support) => (
            <div key={support.family}>{button(support.family)}</div>
          ))}
        </div>
      )}
      {against.length > 0 && (
        <section className="willnot" aria-label="What will not do">
          <h2>Will not do here</h2>
          {against.map((support) => (
            <div key={support.family} className="no">
              {button(support.family)}
              <p>{ways.get(support.family)?.against.join(" ")}</p>
            </div>
          ))}
        </section>
      )}
    </div>
  );
}
