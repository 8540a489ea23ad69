import type { Edit, Garden, Schemas } from "../api/client";
import { queue } from "./queue";
import { EDITS, laneOf, type NewWrite } from "./writes";
import { say } from "../texts/say";

const OWN = "gardens";

export const editsWrite = (garden: number, edits: Edit[], words: string): NewWrite => ({
  lane: laneOf(garden),
  about: EDITS,
  words,
  method: "POST",
  path: `/api/gardens/${garden}/edits`,
  body: { edits },
});

/** Save edits of a garden and wait for what comes of it. */
export const askEdits = (garden: number, edits: Edit[], words: string) =>
  queue.ask(editsWrite(garden, edits, words)) as Promise<Schemas["EditsOut"]>;

/** Change a garden's own fields. */
export const changePlace = async (
  id: number,
  change: Schemas["PlaceChange"],
  words: string,
): Promise<void> => {
  await askEdits(id, [{ kind: "place", change }], words);
};

/** Do something with a garden, in order with everything else that is done with it. */
export const askGarden = <T>(id: number, path: string, body: unknown, words: string) =>
  queue.ask({
    lane: laneOf(id),
    about: path,
    words,
    method: "POST",
    path: `/api/gardens/${id}${path}`,
    body,
  }) as Promise<T>;

/** Take a structure down: what is worth keeping goes into the shed. */
export const askDown = (garden: number, structure: number, seasons: number, words: string) =>
  queue.ask({
    lane: laneOf(garden),
    about: `down/${structure}`,
    words,
    method: "POST",
    path: `/api/structures/${structure}/down`,
    body: { seasons },
  }) as Promise<Garden>;

/** Withdraw a garden’s calendar feed. */
export const askFeed = (garden: number) =>
  queue.ask({
    lane: laneOf(garden),
    about: "feed",
    words: say("sync.calendarFeedWithdrawn"),
    method: "DELETE",
    path: `/api/gardens/${garden}/feed`,
    body: null,
  });

/** Change who may see a garden. */
export const askPeople = (
  id: number,
  method: "POST" | "PUT" | "DELETE",
  path: string,
  body: Schemas["ShareIn"] | null,
  words: string,
) =>
  queue.ask({
    lane: laneOf(id),
    about: path,
    words,
    method,
    path: `/api/gardens/${id}${path}`,
    body,
  }) as Promise<Schemas["People"]>;

/** Make a garden. */
export const askNewGarden = (body: Schemas["PlaceChange"]) =>
  queue.ask({
    lane: OWN,
    about: "new",
    words: say("sync.newGarden", { name: body.name ?? "" }),
    method: "POST",
    path: "/api/gardens",
    body,
  }) as Promise<Garden>;

/** Make a garden of a plan file. */
export const askGardenOf = (text: string) =>
  queue.ask({
    lane: OWN,
    about: "file",
    words: say("sync.newGardenFromAPlanFile"),
    method: "POST",
    path: "/api/gardens/import",
    body: { what: "plan", text, take_away: false },
  }) as Promise<Garden>;
