/** A chain link between its neighbours: thick when it holds, thin when close, sprung open when it falls short. */
export function StateMark({ state }: { state: "holds" | "close" | "short" }) {
  const weak = state === "short";
  const ink = weak ? "var(--weak)" : "var(--ink)";
  return (
    <svg width="24" height="40" viewBox="0 0 24 40" role="img" aria-label={{ holds: "holds", close: "close", short: "falls short" }[state]} style={{ flex: "none" }}>
      <path d="M12 0V9M12 31V40" stroke="var(--ink)" strokeWidth="3.5" />
      <path
        d={weak ? "M17 15.5V12a6 6 0 0 0-12 0V28a6 6 0 0 0 12 0M17 15.5l4.5 -3.5M17 28v-3.5l4.5 2.5" : "M6 13a6 6 0 0 1 12 0v14a6 6 0 0 1-12 0z"}
        fill="none"
        stroke={ink}
        strokeWidth={state === "close" ? 2 : 3.4}
      />
      {state === "close" && <path d="M12 16v8" stroke={ink} strokeWidth="3" />}
    </svg>
  );
}
