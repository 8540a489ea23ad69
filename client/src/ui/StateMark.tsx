/** A chain link: closed when it holds, thin when close, open when it falls short. */
export function StateMark({ state }: { state: "holds" | "close" | "short" }) {
  const weak = state === "short";
  return (
    <svg width="20" height="26" viewBox="0 0 20 26" role="img" aria-label={{ holds: "holds", close: "close", short: "falls short" }[state]}>
      <path
        d={weak ? "M13 7.5V6.5a5 5 0 0 0-8 0V19a5 5 0 0 0 8 0v-2" : "M5 7a5 5 0 0 1 10 0v12a5 5 0 0 1-10 0z"}
        fill="none"
        stroke={weak ? "var(--weak)" : "var(--ink)"}
        strokeWidth={state === "holds" ? 3.4 : 2}
      />
      {weak && <path d="M13 10l4-3M13 14l4 3" stroke="var(--weak)" strokeWidth="2" />}
    </svg>
  );
}
