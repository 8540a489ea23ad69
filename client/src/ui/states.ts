import { say } from "../texts/say"; /** What a link or a structure does, in a word. */
export const STATES = { adequate: "holds", marginal: say("ui.probablyHolds"), inadequate: say("ui.tooWeak") };
/** The same where there is little room: beside a link of the chain. */
export const BRIEFLY = { adequate: "holds", marginal: "probably", inadequate: say("ui.tooWeak") };

export type State = keyof typeof STATES;
