import Input from "@mui/material/Input";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableFooter from "@mui/material/TableFooter";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";

import type { Schemas } from "../../api/client";

interface Props {
  parts: readonly Schemas["PartReport"][];
  cost: number;
  currency: string;
  onPrice?: ((key: string, price: number) => Promise<string>) | undefined;
}

/** What to buy, line by line; prices are the gardener's own where they write them. */
export function PartsTable({ parts, cost, currency, onPrice }: Props) {
  const [refusal, setRefusal] = useState<{ key: string; text: string } | null>(null);
  const setPrice = async (key: string, text: string, now: number) => {
    const price = Number(text.replace(",", "."));
    if (!onPrice || price === now) return;
    if (text.trim() === "" || !Number.isFinite(price) || price < 0)
      setRefusal({ key, text: `‘${text}’ is refused: a price of 0 or more.` });
    else {
      const refused = await onPrice(key, price);
      setRefusal(refused ? { key, text: refused } : null);
    }
  };
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
        {parts.map((part) => (
          <TableRow key={part.key + part.use + part.buy}>
            <TableCell>{part.name}</TableCell>
            <TableCell className="quiet">{part.use}</TableCell>
            <TableCell align="right">{part.count}</TableCell>
            <TableCell>{part.buy}</TableCell>
            <TableCell className="quiet">{part.lasts}</TableCell>
            <TableCell align="right">
              {onPrice ? (
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
