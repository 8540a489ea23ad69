import Input from "@mui/material/Input";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableFooter from "@mui/material/TableFooter";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { Fragment, useState } from "react";

import type { Schemas } from "../../api/client";
import { say } from "../../texts/say";

interface Props {
  parts: readonly Schemas["PartReport"][];
  cost: number;
  currency: string;
  /** What a shop’s shelves are called, in their order: then the list is by shelf. */
  shelves?: Record<string, string>;
  onPrice?: ((key: string, price: number) => Promise<string>) | undefined;
}

/** What to buy, line by line; prices are the gardener's own where they write them. */
export function PartsTable({ parts, cost, currency, shelves, onPrice }: Props) {
  const [refusal, setRefusal] = useState<{ key: string; text: string } | null>(null);
  const setPrice = async (key: string, text: string, now: number) => {
    const price = Number(text.replace(",", "."));
    if (!onPrice || price === now) return;
    if (text.trim() === "" || !Number.isFinite(price) || price < 0)
      setRefusal({ key, text: say("parts.cannotBeUsedEnterAPrice", { text }) });
    else {
      const refused = await onPrice(key, price);
      setRefusal(refused ? { key, text: refused } : null);
    }
  };
  const row = (part: Schemas["PartReport"]) => (
    <TableRow key={part.own + part.key + part.use + part.buy}>
      <TableCell>
        {part.name}
        {part.own && !shelves && <span className="ownmark">{say("parts.fromTheShed")}</span>}
        {part.missing && (
          <p role="alert" className="refusal">
            {say("parts.noMoreOfTheseCanBe")}
          </p>
        )}
      </TableCell>
      <TableCell className="quiet">{part.use}</TableCell>
      <TableCell align="right">{part.count}</TableCell>
      <TableCell>{part.buy}</TableCell>
      <TableCell className="quiet">{part.lasts}</TableCell>
      <TableCell align="right">
        {part.own ? (
          "–"
        ) : onPrice ? (
          <Input
            sx={{ width: 84, input: { textAlign: "right" } }}
            error={refusal?.key === part.price_key}
            defaultValue={part.price.toFixed(2)}
            key={part.price}
            inputProps={{
              inputMode: "decimal",
              "aria-label": say("parts.priceOf2", { name: part.name, buy: part.buy }),
            }}
            onBlur={(event) => void setPrice(part.price_key, event.target.value, part.price)}
          />
        ) : (
          part.price.toFixed(2)
        )}
        {refusal?.key === part.price_key && (
          <p role="alert" className="refusal">
            {say("parts.priceOf3", { name: part.name, text: refusal.text })}
          </p>
        )}
      </TableCell>
      <TableCell align="right">{part.cost.toFixed(2)}</TableCell>
    </TableRow>
  );
  const shelfOf = (part: Schemas["PartReport"]) => (part.own ? "shed" : part.shelf);
  const groups: [string, readonly Schemas["PartReport"][]][] = shelves
    ? Object.entries(shelves)
        .map(([key, name]): [string, Schemas["PartReport"][]] => [
          name,
          parts.filter((part) => shelfOf(part) === key),
        ])
        .filter(([, of]) => of.length > 0)
    : [["", parts]];
  return (
    <Table className="parts">
      <TableHead>
        <TableRow>
          <TableCell>{say("parts.part")}</TableCell>
          <TableCell>{say("parts.for")}</TableCell>
          <TableCell align="right">{say("parts.needed")}</TableCell>
          <TableCell>{say("parts.buy")}</TableCell>
          <TableCell>{say("parts.lasts")}</TableCell>
          <TableCell align="right">{say("parts.priceEach", { currency })}</TableCell>
          <TableCell align="right">{say("parts.cost", { currency })}</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {groups.map(([shelf, of]) => (
          <Fragment key={shelf}>
            {shelf && (
              <TableRow className="shelf">
                <TableCell component="th" scope="rowgroup" colSpan={7}>
                  {shelf}
                </TableCell>
              </TableRow>
            )}
            {of.map((part) => row(part))}
          </Fragment>
        ))}
      </TableBody>
      <TableFooter>
        <TableRow>
          <TableCell colSpan={6}>{say("parts.together2")}</TableCell>
          <TableCell align="right">{cost.toFixed(2)}</TableCell>
        </TableRow>
      </TableFooter>
    </Table>
  );
}
