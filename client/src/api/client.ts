import createClient from "openapi-fetch";

import type { components, paths } from "./schema";
import { say } from "../texts/say";

export type Schemas = components["schemas"];
export type Report = Schemas["Report"];
export type LinkReport = Schemas["LinkReport"];
export type Draft = Schemas["Draft"];
export type Planting = Schemas["Planting"];
export type OptionField = Schemas["OptionField"];
export type Problem = Schemas["ProblemOut"];
export type View = Schemas["View"];
export type Week = Schemas["Week"];
export type Garden = Schemas["GardenOut"];
export type Edit = Schemas["EditsIn"]["edits"][number];
export type ThingEdit = Exclude<Edit, Schemas["PlaceEdit"]>;
export type BedMark = Schemas["BedMark"];
export type FeatureMark = Schemas["FeatureMark"];
export type StructureMark = Schemas["StructureMark"];
export type StructureLine = Schemas["StructureLine"];

/** What the server refused, field by field. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    readonly saved?: unknown,
  ) {
    super(problems.map((p) => `${p.path}: ${p.allowed}`).join("; ") || say("api.answer", { status }));
  }
}

const BUSY = new Set([429, 503]);
/** Whether a refusal only says to ask again in a moment: others are being served, or one's own. */
export const onlyBusy = (error: unknown) => error instanceof Refused && BUSY.has(error.status);

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The answer's data as the document types it: the client library widens pairs of numbers to lists. */
export const exactly = async <T>(asked: Promise<Answer<unknown>>): Promise<T> => (await taken(asked)) as T;

/** The answer's data, or the refusal as an error. */
export async function taken<T>(asked: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await asked;
  if (data !== undefined) return data;
  const problems = (error as { problems?: Problem[] } | undefined)?.problems ?? [];
  throw new Refused(response.status, problems, error);
}
