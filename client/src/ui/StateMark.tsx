import { LinkGlyph } from "../drawing/LinkGlyph";
import { STATES, type State } from "./states";

/** A chain link between its neighbours, for a line of a list. */
export function StateMark({ state }: { state: State }) {
  return (
    <svg
      width="24"
      height="40"
      viewBox="0 0 24 40"
      role="img"
      aria-label={STATES[state]}
      style={{ flex: "none" }}
    >
      <path d="M12 0V9M12 31V40" stroke="var(--ink)" strokeWidth="3.5" />
      <LinkGlyph state={state} />
    </svg>
  );
}
