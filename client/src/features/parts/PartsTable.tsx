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
    <table className="parts">
      <thead>
        <tr>
          <th>Part</th>
          <th>For</th>
          <th className="num">Needed</th>
          <th>Buy</th>
          <th>Lasts</th>
          <th className="num">Price each, {currency}</th>
          <th className="num">Cost, {currency}</th>
        </tr>
      </thead>
      <tbody>
        {parts.map((part) => (
          <tr key={part.key + part.use + part.buy}>
            <td>{part.name}</td>
            <td className="quiet">{part.use}</td>
            <td className="num">{part.count}</td>
            <td>{part.buy}</td>
            <td className="quiet">{part.lasts}</td>
            <td className="num">
              {onPrice ? (
                <input
                  className="input"
                  style={{ textAlign: "right", width: 84 }}
                  aria-label={`Price of ${part.name}, ${part.buy}`}
                  aria-invalid={refusal?.key === part.price_key}
                  defaultValue={part.price.toFixed(2)}
                  key={part.price}
                  inputMode="decimal"
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
            </td>
            <td className="num">{part.cost.toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={6}>
            <strong>Together</strong>
          </td>
          <td className="num">
            <strong>{cost.toFixed(2)}</strong>
          </td>
        </tr>
      </tfoot>
    </table>
  );
}
