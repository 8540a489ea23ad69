import type { Schemas } from "../../api/client";
import { Glance } from "../../drawing/Glance";

interface Props {
  supports: readonly Schemas["Support"][];
  chosen: string;
  onChoose: (family: string) => void;
}

/**
 * Every kind of support as it would stand here, to be chosen by its picture; those that suit the crop come
 * first.
 */
export function Kinds({ supports, chosen, onChoose }: Props) {
  return (
    <div className="kinds" role="group" aria-label="Kind of support">
      {supports.map((support) => (
        <button
          key={support.family}
          type="button"
          className="kind"
          aria-pressed={support.family === chosen}
          data-score={support.score}
          onClick={() => onChoose(support.family)}
        >
          <Glance sketch={support.sketch} />
          <strong>{support.name}</strong>
          <span className="quiet">{support.score_text}</span>
        </button>
      ))}
    </div>
  );
}
