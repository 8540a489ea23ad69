import { changeOf, type Kind } from "./placing";
import type { PlanHand } from "./usePlan";
import { say } from "../../texts/say";

interface Props {
  kind: Kind;
  thing: { key: string; name: string };
  plan: PlanHand;
  shift: object;
}

/** Copy and remove; both can be undone. */
export function ThingActions({ kind, thing, plan, shift }: Props) {
  return (
    <p className="actions">
      <button
        type="button"
        className="plain"
        onClick={() =>
          plan.put({
            ...changeOf(kind, `${thing.key}-copy`.slice(0, 64), shift),
            act: "add",
            copy_of: thing.key,
          })
        }
        title={say("plot.aCopyAStepBesideIt")}
      >
        {say("plot.copy2")}
      </button>
      <button
        type="button"
        className="plain"
        onClick={() => plan.put({ ...changeOf(kind, thing.key, {}), act: "remove" })}
        title={say("plot.delete")}
      >
        {say("plot.remove")}
      </button>
    </p>
  );
}
