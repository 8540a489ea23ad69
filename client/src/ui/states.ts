import { say } from "../texts/say"; /** What a link or a structure does, in a word. */
export const STATES = { holds: "holds", stands: say("ui.probablyHolds"), short: say("ui.tooWeak") };
/** The same where there is little room: beside a link of the chain. */
export const BRIEFLY = { holds: "holds", stands: "probably", short: say("ui.tooWeak") };

export type State = keyof typeof STATES;
