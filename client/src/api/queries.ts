import { useQueries, useQuery } from "@tanstack/react-query";

import { api, exactly, taken, type Draft, type Garden, type Report, type StructureLine } from "./client";

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => taken(api.GET("/api/session")), staleTime: Infinity });

/** Everything a picker lists, its sizes in the reader's units. */
export const useCatalogue = (units: "metric" | "imperial" | undefined) =>
  useQuery({
    queryKey: ["catalogue", units],
    enabled: units !== undefined,
    queryFn: () => taken(api.GET("/api/catalogue", { params: { query: { units: units ?? "metric" } } })),
    staleTime: Infinity,
  });

export const useGardens = () =>
  useQuery({ queryKey: ["gardens"], queryFn: () => taken(api.GET("/api/gardens")) });

export const useGarden = (id: number) =>
  useQuery({
    queryKey: ["garden", id],
    enabled: id > 0,
    queryFn: () =>
      exactly<Garden>(api.GET("/api/gardens/{garden_id}", { params: { path: { garden_id: id } } })),
  });

const AT_ONCE = 50;
const AGAIN_MS = 200;

/** Of many questions of one kind only two are asked at once; the others wait here, not on the server. */
const asking: Promise<unknown>[] = [Promise.resolve(), Promise.resolve()];
let turn = 0;
function inTurn<T>(ask: () => Promise<T>): Promise<T> {
  const place = turn++ % asking.length;
  const mine = (asking[place] ?? Promise.resolve()).then(ask, ask);
  asking[place] = mine;
  return mine;
}

/**
 * How the structures of a garden stand, fifty at a time and of those what a moment allows, so that a large
 * garden comes in by and by.
 */
export function useLines(garden: Garden): Map<string, StructureLine> {
  const keys = garden.structures.map((each) => each.key);
  const some = Array.from({ length: Math.ceil(keys.length / AT_ONCE) }, (_, i) =>
    keys.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
  );
  const revisions = new Map(
    garden.structures.map((each) => [
      each.key,
      `${each.key}/${each.revision}/${garden.beds.find((bed) => bed.key === each.bed)?.revision ?? 0}`,
    ]),
  );
  return useQueries({
    queries: some.map((few) => ({
      queryKey: ["lines", garden.id, garden.place.revision, few.map((key) => revisions.get(key))],
      placeholderData: (before: StructureLine[] | undefined) => before,
      // what could not be reckoned in one go is asked for again
      refetchInterval: (query: { state: { data?: StructureLine[] | undefined } }) =>
        (query.state.data?.length ?? few.length) < few.length ? AGAIN_MS : false,
      queryFn: () =>
        inTurn(() =>
          exactly<StructureLine[]>(
            api.GET("/api/gardens/{garden_id}/lines", {
              params: { path: { garden_id: garden.id }, query: { keys: few } },
            }),
          ),
        ),
    })),
    combine: (found) => new Map(found.flatMap((each) => each.data ?? []).map((line) => [line.key, line])),
  });
}

export const useStructure = (id: number) =>
  useQuery({
    queryKey: ["structure", id],
    queryFn: ({ signal }) =>
      taken(api.GET("/api/structures/{structure_id}", { signal, params: { path: { structure_id: id } } })),
  });

/** The report of a draft. */
export const reportOf = (id: number, body: { draft: Draft; week: number | null }, signal: AbortSignal) =>
  exactly<Report>(
    api.POST("/api/structures/{structure_id}/report", {
      signal,
      params: { path: { structure_id: id } },
      body,
    }),
  );
