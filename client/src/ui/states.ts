/** What a link or a structure does, in a word. */
export const STATES = { holds: "holds", stands: "should stand", short: "falls short" };

export type State = keyof typeof STATES;
