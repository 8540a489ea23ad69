import { say } from "../texts/say";
import { Refused } from "./client";

/** What a failure of the server is said as: its own refusal, or that no answer came. */
export const saidOf = (error: unknown) =>
  error instanceof Refused ? error.message : say("common.theServerDidNotAnswer");
