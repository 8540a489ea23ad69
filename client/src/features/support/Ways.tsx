import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";

import type { Schemas } from "../../api/client";
import { Thumbnail, spanOf } from "../../drawing/Thumbnail";
import { Pick } from "../../ui/Pick";
import { Tick } from "../../ui/Tick";
import { say } from "../../texts/say";

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

const IN_SIGHT = 5;
const FIRST_HEADS = [say("support.holdsUpTo2"), "Costs", "Work"] as const;
const MORE_HEADS = [
  say("support.expectedToFail"),
  say("support.firstPartToWearOut"),
  say("support.movingAndAccess"),
] as const;

/**
 * Kinds of support compared: the best that will do in order, with why and what to look out for; the others
 * and those that will not do are folded, with what stops them.
 */
export function Ways({ supports, ways, places, chosen, pointed, onChoose, onPoint, kept, onKeep }: Props) {
  const [all, setAll] = useState(false);
  const [more, setMore] = useState(false);
  const ranked = places.map((place) => place.family).filter((family) => ways.has(family));
  // while a hand is on the list its rows stay where they are; what comes in stands below
  const [held, setHeld] = useState<readonly string[] | null>(null);
  const stays = (held ?? []).filter((family) => ranked.includes(family));
  const order = [...stays, ...ranked.filter((family) => !stays.includes(family))];
  const name = new Map(supports.map((support) => [support.family, support]));
  const against = supports.filter((support) => (ways.get(support.family)?.against.length ?? 0) > 0);
  const left = supports.filter((support) => !order.includes(support.family) && !against.includes(support));
  const span = spanOf([...ways.values()].map((way) => way.sketch));
  const inSight = all ? order : order.filter((family, row) => row < IN_SIGHT || family === chosen);
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
          {way ? <Thumbnail sketch={way.sketch} span={span} /> : <Thumbnail sketch={support.sketch} />}
          <strong>{support.name}</strong>
          <span className="quiet">{support.score_text}</span>
        </button>
      )
    );
  };
  return (
    <div className="ways" role="group" aria-label={say("support.kindOfSupport")}>
      {order.length > 0 && (
        <div
          className="comparing"
          onPointerEnter={() => setHeld(ranked)}
          onPointerLeave={() => setHeld(null)}
        >
          <Table size="small" className="compared" data-more={more}>
            <TableHead>
              <TableRow>
                <TableCell>{say("support.kindOfSupport")}</TableCell>
                {[...FIRST_HEADS, ...(more ? MORE_HEADS : [])].map((head) => (
                  <TableCell key={head}>{head}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {inSight.map((family) => {
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
                          <span className="rank">{order.indexOf(family) + 1}</span>
                          {button(family)}
                          <div className="quiet why">
                            {place?.reasons[0]}
                            {way.told.where && <p className="minds">{way.told.where}</p>}
                            {way.told.minds && <p className="minds">{way.told.minds}</p>}
                            <Tick
                              label={say("support.compare")}
                              checked={kept.includes(family)}
                              onTick={() => onKeep(family)}
                            />
                          </div>
                        </div>
                      </TableCell>
                      <TableCell data-label={FIRST_HEADS[0]}>
                        {way.told.limit}
                        <div className="quiet">{way.state_words}</div>
                        <div className="quiet">{way.told.needs}</div>
                      </TableCell>
                      <TableCell data-label={FIRST_HEADS[1]} className="figure">
                        {say("support.aSeason2", { yearly: way.told.yearly })}
                        <div className="quiet">
                          {say("support.toBuy2", { cost: way.told.cost })}
                          {way.told.own && `; ${way.told.own}`}
                        </div>
                        {way.told.tools && <div className="quiet">{way.told.tools}</div>}
                      </TableCell>
                      <TableCell data-label={FIRST_HEADS[2]}>
                        {way.told.minutes}
                        <div className="quiet">
                          {say(way.told.people === "1" ? "support.plantsAlone" : "support.plants", {
                            people: way.told.people,
                            plants: way.told.plants,
                          })}
                        </div>
                      </TableCell>
                      {more && (
                        <>
                          <TableCell data-label={MORE_HEADS[0]}>
                            {way.told.once}
                            <div className="quiet">
                              {way.told.weakest}; {way.told.carries}
                            </div>
                          </TableCell>
                          <TableCell data-label={MORE_HEADS[1]}>
                            {way.told.life}
                            <div className="quiet">{way.told.crop}</div>
                          </TableCell>
                          <TableCell data-label={MORE_HEADS[2]}>
                            {way.told.moves}
                            <div className="quiet">{way.told.faces}</div>
                          </TableCell>
                        </>
                      )}
                    </TableRow>
                  )
                );
              })}
            </TableBody>
          </Table>
          <p className="actions">
            {order.length > IN_SIGHT && (
              <Button onClick={() => setAll(!all)} aria-expanded={all}>
                {all
                  ? say("support.showTheFirstFive")
                  : say("support.showMoreKinds", { length: order.length - IN_SIGHT })}
              </Button>
            )}
            <Button onClick={() => setMore(!more)} aria-expanded={more}>
              {more ? say("support.showFewerFigures") : say("support.showMoreFigures")}
            </Button>
          </p>
        </div>
      )}
      {left.length > 0 && order.length + against.length === 0 && (
        <div className="kinds" aria-label={say("support.notCalculatedYet")}>
          {left.map((support) => (
            <div key={support.family}>{button(support.family)}</div>
          ))}
        </div>
      )}
      <div className="certain">
        <Pick
          label={say("support.aCertainKind")}
          value={name.has(chosen) ? chosen : ""}
          choices={[
            ...(name.has(chosen) ? [] : [{ key: "", name: say("support.theBest") }]),
            ...supports.map((support) => ({ key: support.family, name: support.name })),
          ]}
          onPick={(family) => family && onChoose(family)}
        />
      </div>
      {against.length > 0 && (
        <details
          className="willnot"
          open={(order.length === 0 && left.length === 0) || against.some((each) => each.family === chosen)}
        >
          <summary>
            {say(against.length === 1 ? "support.oneNotSuitableHere" : "support.severalNotSuitableHere", {
              kinds: against.length,
            })}
          </summary>
          {against.map((support) => (
            <div key={support.family} className="no">
              {button(support.family)}
              <p>{ways.get(support.family)?.against.join(" ")}</p>
            </div>
          ))}
        </details>
      )}
    </div>
  );
}
