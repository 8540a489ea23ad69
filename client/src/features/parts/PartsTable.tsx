import Input from "@mui/material/Input";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableFooter from "@mui/material/TableFooter";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { Fragment, useState } from "react";

import type { Schemas } from "../../api/client";

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
      setRefusal({ key, text: `‘${text}’ cannot be used. Enter a price of 0 or more.` });
    else {
      const refused = await onPrice(key, price);
      setRefusal(refused ? { key, text: refused } : null);
    }
  };
  const row = (part: Schemas["PartReport"]) => (
    <TableRow key={part.own + part.key + part.use + part.buy}>
      <TableCell>
        {part.name}
        {part.own && !shelves && <span className="ownmark">from the shed</span>}
        {part.missing && (
          <p role="alert" className="refusal">
            No more of these can be bought. Choose another part, or use fewer.
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
            inputProps={{ inputMode: "decimal", "aria-label": `Price of ${part.name}, ${part.buy}` }}
            onBlur={(event) => void setPrice(part.price_key, event.target.value, part.price)}
          />
        ) : (
          part.price.toFixed(2)
        )}
        {refusal?.key === part.price_key && (
          <p role="alert" className="refusal">
            Price of {part.name}: {refusal.text}
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
          <TableCell>Part</TableCell>
          <TableCell>For</TableCell>
          <TableCell align="right">Needed</TableCell>
          <TableCell>Buy</TableCell>
          <TableCell>Lasts</TableCell>
          <TableCell align="right">Price each, {currency}</TableCell>
          <TableCell align="right">Cost, {currency}</TableCell>
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
          <TableCell colSpan={6}>Together</TableCell>
          <TableCell align="right">{cost.toFixed(2)}</TableCell>
        </TableRow>
      </TableFooter>
    </Table>
  );
}
