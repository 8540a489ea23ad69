import Button from "@mui/material/Button";
import { useState } from "react";

import { type Garden, Refused, type Schemas } from "../../api/client";
import { askSupplier } from "../../api/queries";
import { askGarden } from "../../queue/asks";
import { say } from "../../texts/say";

const SHOWN = 8;

/** A supplier's prices: fetched, shown with what they change, taken in as one change or left. */
export function Supplier({ garden }: { garden: number }) {
  const [list, setList] = useState<Schemas["SupplierOut"] | null>(null);
  const [said, setSaid] = useState("");
  const [all, setAll] = useState(false);
  const tell = (error: unknown) =>
    setSaid(
      error instanceof Refused && error.problems.length
        ? error.problems.map((each) => `${each.path}, ‘${each.given}’: ${each.allowed}`).join("; ")
        : say("common.theServerDidNotAnswer"),
    );
  const look = async () => {
    setSaid(say("common.loading"));
    setList(null);
    try {
      setList(await askSupplier(garden));
      setSaid("");
    } catch (error) {
      tell(error);
    }
  };
  const take = async () => {
    if (!list) return;
    try {
      const body = { what: "prices", text: list.text, take_away: false, number: list.number };
      await askGarden<Garden>(
        garden,
        "/import",
        body,
        say("parts.pricesOf", { supplier: list.report.supplier }),
      );
      setList(null);
      setSaid(say("parts.importedAsOneChangeYouCan"));
    } catch (error) {
      if (error instanceof Refused && error.status === 409) {
        setSaid(say("parts.theGardenWasChangedMeanwhile"));
        await look();
      } else tell(error);
    }
  };
  const lines = list?.report.lines ?? [];
  return (
    <section className="supplier noprint" aria-label={say("parts.aSuppliersPrices")}>
      <button type="button" className="plain" style={{ paddingLeft: 0 }} onClick={() => void look()}>
        {say("parts.askASupplierForPrices")}
      </button>
      {said && (
        <p role="status" className="quiet">
          {said}
        </p>
      )}
      {list && (
        <div className="stockform">
          <h2>{list.report.supplier}</h2>
          {list.report.warned.map((text) => (
            <p key={text}>{text}</p>
          ))}
          <ul className="pricelines">
            {lines.slice(0, all ? undefined : SHOWN).map((line) => (
              <li key={line.name}>
                {line.name}{" "}
                <span className="quiet">
                  {line.before && `${line.before} → `}
                  {line.after}
                </span>
              </li>
            ))}
          </ul>
          {lines.length > SHOWN && (
            <button type="button" className="plain" onClick={() => setAll(!all)}>
              {all ? say("parts.fewer") : say("parts.andMore", { length: lines.length - SHOWN })}
            </button>
          )}
          <p className="actions">
            <Button onClick={() => void take()} disabled={!lines.length}>
              {say("parts.takePrices", { length: lines.length })}
            </Button>
            <button type="button" className="plain" onClick={() => setList(null)}>
              {say("common.cancel")}
            </button>
          </p>
        </div>
      )}
    </section>
  );
}
