import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";

import type { Schemas } from "../../api/client";
import { Overlay } from "../../drawing/Overlay";
import { say } from "../../texts/say";

type Way = Schemas["KindReport"];

const ROWS: readonly [string, (way: Way) => string][] = [
  [say("support.holdsUpTo"), (way) => `${way.told.limit}, ${way.state_words}`],
  ["fails", (way) => way.told.once],
  [say("support.failsFirst"), (way) => way.told.weakest],
  [say("support.itsCrop"), (way) => way.told.carries],
  [say("support.aSeason"), (way) => `${way.told.yearly}; ${way.told.crop}`],
  [say("support.toBuy"), (way) => way.told.cost],
  [say("support.fromTheShed"), (way) => way.told.own || "nothing"],
  [
    "work",
    (way) =>
      `${way.told.minutes}, ${way.told.people === "1" ? say("support.alone") : say("support.people", { people: way.told.people })}`,
  ],
  ["shortest-lived", (way) => way.told.life],
  ["later", (way) => way.told.moves],
  ["reached", (way) => way.told.faces],
  ["plants", (way) => way.told.plants],
];

/** Two kinds that were kept, side by side in figures and drawn over one another. */
export function Compare({ ways }: { ways: readonly [Way, Way] }) {
  const [one, other] = ways;
  return (
    <section className="comparison" aria-label={say("support.twoCompared")}>
      <h2>
        <span className="first">{one.name}</span> {say("support.over")}{" "}
        <span className="second">{other.name}</span>
      </h2>
      <Overlay
        sketches={[one.sketch, other.sketch]}
        label={say("support.andDrawnOverOneAnother", { name: one.name, name2: other.name })}
      />
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell />
            <TableCell>{one.name}</TableCell>
            <TableCell>{other.name}</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {ROWS.map(([name, text]) => (
            <TableRow key={name}>
              <TableCell component="th" scope="row" className="quiet">
                {name}
              </TableCell>
              <TableCell>{text(one)}</TableCell>
              <TableCell>{text(other)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </section>
  );
}
