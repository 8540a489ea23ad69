import type { Edit, Problem } from "../api/client";
import { isEditsIn, isEditsOut, isSaveIn, isStructureOut } from "./answers";

/** What goes to the server, as it is kept until it has got there. */
export interface Write {
  /** Its own name, by which the server does it once however often it comes. */
  mark: string;
  /** The account it is of; it waits until that one is signed in. */
  who: string;
  /** What it must be in order with: one garden, or the gardens of an account. */
  lane: string;
  /** When it was made: the order of its lane. */
  at: number;
  /** What it is about; a later write about the same may take its place. */
  about: string;
  /** The writes before it that were seen when it was made, by their marks: it builds on them. */
  knows: readonly string[];
  /** In words, for whoever must decide about it. */
  words: string;
  method: "POST" | "PUT" | "DELETE";
  path: string;
  body: unknown;
  /** How often it has been sent. Once it has been, it is never changed: it may have got there. */
  tries: number;
  /** How often the server has failed at it. */
  faults?: number;
  state: "waiting" | "refused" | "stale";
  problems: Problem[];
  /** What the server has instead, when someone else was first. */
  saved?: unknown;
}

/** A new write: what it is, without what the queue adds. */
export type NewWrite = Pick<Write, "lane" | "about" | "words" | "method" | "path" | "body"> & {
  knows?: readonly string[];
};

/** A later write put together with one that waits, or null when both must go. */
export type Join = (earlier: Write) => { body: unknown; words: string } | null;

export const laneOf = (garden: number) => `garden/${garden}`;
export const EDITS = "edits";
export const aboutStructure = (id: number) => `structure/${id}`;
export const editsOf = (write: Write) =>
  write.about === EDITS && isEditsIn(write.body) ? write.body.edits : [];
export const keyOf = (edit: Edit) => (edit.kind === "place" ? "place" : edit.key);
export const sameThing = (a: Edit, b: Edit) => a.kind === b.kind && keyOf(a) === keyOf(b);

/** What follows from an answer for a write that was made knowing of it: the revisions it starts from. */
export function rebased(write: Write, done: Write, answer: unknown): Write {
  if (write.tries > 0 || !write.knows.includes(done.mark)) return write;
  if (write.about === EDITS && done.about === EDITS && isEditsOut(answer)) {
    const { revisions } = answer;
    const edits = editsOf(write).map((edit, i, all) => {
      const known = revisions[`${edit.kind}/${keyOf(edit)}`];
      return edit.revision != null &&
        known !== undefined &&
        !all.slice(0, i).some((each) => sameThing(each, edit))
        ? { ...edit, revision: known }
        : edit;
    });
    return { ...write, body: { edits } };
  }
  if (write.about === done.about && isSaveIn(write.body) && isStructureOut(answer))
    return { ...write, body: { ...write.body, revision: answer.revision } };
  return write;
}
