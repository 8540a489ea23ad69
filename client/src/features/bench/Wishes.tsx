import { useState } from "react";

import { type Draft, type Schemas } from "../../api/client";
import { useWays } from "../../api/calculated";
import { useSettled } from "../../ui/useSettled";
import { Measured } from "./Measured";
import { say } from "../../texts/say";

interface Props {
  structure: Schemas["StructureOut"];
  wishes: readonly Schemas["WishField"][];
  draft: Draft;
  onTake: (changes: Record<string, number>) => void;
}

/** What may be asked of a structure the other way round, each folded until it is wanted. */
export function Wishes({ structure, wishes, draft, onTake }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  return wishes.map((wish) => (
    <div key={wish.key} className="wish" role="group" aria-label={wish.name}>
      <button
        type="button"
        className="plain"
        aria-expanded={open === wish.key}
        onClick={() => setOpen(open === wish.key ? null : wish.key)}
      >
        {say("bench.iWant", { name: wish.name })}
      </button>
      {open === wish.key && <Ways structure={structure} wish={wish} draft={draft} onTake={onTake} />}
    </div>
  ));
}

function Ways({ structure, wish, draft, onTake }: Omit<Props, "wishes"> & { wish: Schemas["WishField"] }) {
  const [wanted, setWanted] = useState(() =>
    Object.fromEntries(wish.asks.map((ask) => [ask.name, ask.start])),
  );
  const asked = useSettled({ draft, wish: wish.key, wanted });
  const found = useWays(structure, asked);
  return (
    <>
      {wish.asks.map((ask) => (
        <Measured
          key={ask.name}
          label={ask.label}
          kind={ask.kind}
          low={ask.low}
          high={ask.high}
          step={ask.step}
          value={wanted[ask.name] ?? ask.start}
          text={found.data?.written[ask.name] ?? ""}
          system={structure.units}
          grip={ask.name}
          onValue={(value) => setWanted((now) => ({ ...now, [ask.name]: value }))}
          onRelease={() => undefined}
        />
      ))}
      <ul className="ways" aria-live="polite">
        {found.data?.ways.map((way) => (
          <li key={way.text}>
            {way.text}{" "}
            <button type="button" className="plain" onClick={() => onTake(way.changes)}>
              {say("bench.useThis")}
            </button>
          </li>
        ))}
        {found.data?.ways.length === 0 && <li>{say("bench.noDesignGivesThatTryA")}</li>}
      </ul>
    </>
  );
}
