import type { State } from "../ui/states";

interface Props {
  state: State;
}

/**
 * One chain link, 24 by 40: thick when it holds, thin when its margin is spent, sprung open when it falls
 * short.
 */
export function LinkGlyph({ state }: Props) {
  const weak = state === "inadequate";
  const ink = weak ? "var(--weak)" : "var(--ink)";
  return (
    <>
      <path
        d={
          weak
            ? "M17 15.5V12a6 6 0 0 0-12 0V28a6 6 0 0 0 12 0M17 15.5l4.5 -3.5M17 28v-3.5l4.5 2.5"
            : "M6 13a6 6 0 0 1 12 0v14a6 6 0 0 1-12 0z"
        }
        fill="none"
        stroke={ink}
        strokeWidth={state === "marginal" ? 2 : 3.4}
      />
      {state === "marginal" && <path d="M12 16v8" stroke={ink} strokeWidth="3" />}
    </>
  );
}
