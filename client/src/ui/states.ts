/** What a link or a structure does, in a word. */
export const STATES = { holds: "holds", stands: "should stand", short: "falls short" };
/** The same where there is little room: beside a link of the chain. */
export const BRIEFLY = { holds: "holds", stands: "stands", short: "short" };

export type State = keyof typeof STATES;
