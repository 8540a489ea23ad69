/** What a link or a structure does, in a word. */
export const STATES = { holds: "holds", stands: "probably holds", short: "too weak" };
/** The same where there is little room: beside a link of the chain. */
export const BRIEFLY = { holds: "holds", stands: "probably", short: "too weak" };

export type State = keyof typeof STATES;
