import { say } from "../texts/say"; /** A limit after its verb: up to a gust; else as it is, ‘over’ the strongest calculated or ‘no wind’. */
export const upTo = (limit: string): string => (/^\d/.test(limit) ? say("ui.upTo", { limit }) : limit);
