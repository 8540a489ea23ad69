import {
  keepPreviousData,
  useInfiniteQuery,
  useQueries,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";

import { api, exactly, type Garden, type Schemas, type StructureLine, taken } from "./client";
import { merged } from "./merged";
import { keepSaid } from "./keepSaid";

/** What an answer is kept under: the first word of each is what `useFresh` speaks of. */
export const KEYS = {
  session: ["session"],
  gardens: ["gardens"],
  garden: (id: number) => ["garden", id],
  structure: (id: number) => ["structure", id],
  people: (garden: number) => ["people", garden],
} as const;

export const useSession = () =>
  useQuery({ queryKey: KEYS.session, queryFn: () => taken(api.GET("/api/session")), staleTime: Infinity });

/** Everything a picker lists, its sizes in the reader's units. */
export const useCatalogue = (units: "metric" | "imperial" | undefined) =>
  useQuery({
    queryKey: ["catalogue", units],
    enabled: units !== undefined,
    queryFn: () => taken(api.GET("/api/catalogue", { params: { query: { units: units ?? "metric" } } })),
    staleTime: Infinity,
  });

export const useGardens = () =>
  useQuery({ queryKey: KEYS.gardens, queryFn: () => taken(api.GET("/api/gardens")) });

/** A garden; of one that is known only what differs since is asked for. */
export function useGarden(id: number) {
  const client = useQueryClient();
  return useQuery({
    queryKey: KEYS.garden(id),
    enabled: id > 0,
    queryFn: async () => {
      const now = client.getQueryData<Garden>(KEYS.garden(id));
      if (!now)
        return exactly<Garden>(api.GET("/api/gardens/{garden_id}", { params: { path: { garden_id: id } } }));
      const { garden, difference } = await exactly<Schemas["GardenSince"]>(
        api.GET("/api/gardens/{garden_id}/since/{number}", {
          params: { path: { garden_id: id, number: now.number } },
        }),
      );
      const known = garden ?? (difference ? merged(now, difference) : now);
      // what was saved meanwhile may have been answered first
      const latest = client.getQueryData<Garden>(KEYS.garden(id)) ?? now;
      if (latest.number > known.number) return latest;
      keepSaid(`/api/gardens/${id}`, () => client.getQueryData(KEYS.garden(id)));
      return known;
    },
  });
}

export const useDeletedGardens = () =>
  useQuery({ queryKey: ["deleted"], queryFn: () => taken(api.GET("/api/gardens/deleted")) });

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
      [
        each.key,
        each.revision,
        garden.beds.find((bed) => bed.key === each.bed)?.revision ?? 0,
        each.built && garden.number, // what went in otherwise may have changed with anything
      ].join("/"),
    ]),
  );
  return useQueries({
    queries: some.map((few) => ({
      queryKey: ["lines", garden.id, garden.place.revision, few.map((key) => revisions.get(key))],
      placeholderData: (before: StructureLine[] | undefined) => before,
      // what could not be calculated in one go is asked for again
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
    queryKey: KEYS.structure(id),
    queryFn: ({ signal }) =>
      taken(api.GET("/api/structures/{structure_id}", { signal, params: { path: { structure_id: id } } })),
  });

const PAGE = 50;

/** What was changed in a garden, the latest first, a page after the other. */
export const useHistory = (garden: Garden | undefined) =>
  useInfiniteQuery({
    queryKey: ["history", garden?.id, garden?.number],
    enabled: garden !== undefined,
    initialPageParam: null as number | null,
    placeholderData: keepPreviousData,
    getNextPageParam: (page: Schemas["ChangeOut"][]) =>
      page.length === PAGE ? (page.at(-1)?.number ?? null) : null,
    queryFn: ({ pageParam }) =>
      exactly<Schemas["ChangeOut"][]>(
        api.GET("/api/gardens/{garden_id}/history", {
          params: {
            path: { garden_id: garden?.id ?? 0 },
            query: pageParam === null ? {} : { before: pageParam },
          },
        }),
      ),
  });

/** A garden as it stood after one of its changes. */
export const usePast = (id: number, number: number | null, units: string | undefined) =>
  useQuery({
    queryKey: ["past", id, number, units],
    enabled: number !== null && Number.isInteger(number),
    placeholderData: keepPreviousData,
    queryFn: () =>
      exactly<Schemas["Past"]>(
        api.GET("/api/gardens/{garden_id}/history/{number}", {
          params: { path: { garden_id: id, number: number ?? 0 } },
        }),
      ),
  });

export const useMethod = () =>
  useQuery({ queryKey: ["method"], queryFn: () => taken(api.GET("/api/method")), staleTime: Infinity });

const LETTERS_MS = 5000;

export const useLetters = () =>
  useQuery({
    queryKey: ["letters"],
    queryFn: () => taken(api.GET("/api/letters")),
    refetchInterval: LETTERS_MS,
  });

export const usePeople = (garden: number) =>
  useQuery({
    queryKey: KEYS.people(garden),
    queryFn: () =>
      taken(api.GET("/api/gardens/{garden_id}/people", { params: { path: { garden_id: garden } } })),
  });

/** Where the shade of a moment falls; nothing is asked without one. */
export const useShade = (garden: Garden, at: { date: string; hour: number } | null) =>
  useQuery({
    queryKey: ["shade", garden.id, garden.number, at],
    enabled: at !== null,
    placeholderData: keepPreviousData,
    queryFn: () =>
      exactly<Schemas["ShadeOut"]>(
        api.GET("/api/gardens/{garden_id}/shade", {
          params: { path: { garden_id: garden.id }, query: at ?? { date: "01-01", hour: 12 } },
        }),
      ),
  });

/** What is in a garden's shed, who has of it, and what is free. */
export const useShed = (garden: number, number: number | undefined, units: string | undefined) =>
  useQuery({
    queryKey: ["shed", garden, number, units],
    enabled: garden > 0 && number !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () =>
      exactly<Schemas["ShedOut"]>(
        api.GET("/api/gardens/{garden_id}/shed", { params: { path: { garden_id: garden } } }),
      ),
  });

/** A supplier's price list and what it would change; asked for when somebody wants it. */
export const askSupplier = (garden: number) =>
  exactly<Schemas["SupplierOut"]>(
    api.GET("/api/gardens/{garden_id}/supplier", { params: { path: { garden_id: garden } } }),
  );

export const useGardenParts = (garden: Garden | undefined) =>
  useQuery({
    queryKey: ["parts", "garden", garden?.id, garden?.number, garden?.units],
    enabled: garden !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () =>
      exactly<Schemas["GardenParts"]>(
        api.GET("/api/gardens/{garden_id}/parts", { params: { path: { garden_id: garden?.id ?? 0 } } }),
      ),
  });

/** Which supports suit a crop on a bed. */
export const useSupports = (garden: number, bed: string, crop: Schemas["WantedIn"]) =>
  useQuery({
    queryKey: ["supports", garden, bed, crop],
    queryFn: () =>
      exactly<Schemas["SupportsOut"]>(
        api.POST("/api/gardens/{garden_id}/beds/{bed}/supports", {
          params: { path: { garden_id: garden, bed } },
          body: crop,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/**
 * Every kind of support for a need, sized and measured, coming in one after another as they are asked: at
 * first each for a moment, then each closely. What is `wished` comes before all others.
 */
export const useWays = (
  garden: number,
  bed: string,
  need: Omit<Schemas["ChooseIn"], "closely">,
  kinds: readonly string[],
  wished: string | null,
  units: string | undefined,
  number: number, // of the garden: its shed and its other beds count, too
  stopped: boolean,
) => {
  const client = useQueryClient();
  const looks = [false, true].flatMap((closely) => kinds.map((kind) => ({ kind, closely })));
  const key = ({ kind, closely }: (typeof looks)[number]) => [
    "way",
    garden,
    bed,
    need,
    kind,
    units,
    number,
    closely,
  ];
  const waiting = looks.filter((look) => {
    const state = client.getQueryState(key(look));
    return state?.status !== "success" && state?.status !== "error";
  });
  const next = waiting.find((look) => look.kind === wished) ?? waiting[0];
  return useQueries({
    queries: looks.map((look) => ({
      queryKey: key(look),
      enabled: look === next && !stopped,
      staleTime: Infinity,
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        exactly<Schemas["KindReport"]>(
          api.POST("/api/gardens/{garden_id}/beds/{bed}/ways/{family}", {
            params: { path: { garden_id: garden, bed, family: look.kind } },
            body: { ...need, closely: look.closely },
            signal,
          }),
        ),
    })),
  });
};

/** Ways that will do, in order, each with why. */
export const useOrder = (garden: number, sent: Schemas["OrderIn"], units: string | undefined) =>
  useQuery({
    queryKey: ["order", garden, sent, units],
    enabled: Object.keys(sent.ways).length > 0,
    queryFn: () =>
      exactly<Schemas["OrderOut"]>(
        api.POST("/api/gardens/{garden_id}/order", {
          params: { path: { garden_id: garden } },
          body: sent,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** The choices that divide growers, as they come out for a way of building. */
export const useDivides = (
  garden: number,
  bed: string,
  sent: Schemas["DividesIn"] | null,
  units: string | undefined,
) =>
  useQuery({
    queryKey: ["divides", garden, bed, sent, units],
    enabled: sent !== null,
    queryFn: () => {
      if (!sent) throw new Error("nothing chosen");
      return exactly<Schemas["DividesOut"]>(
        api.POST("/api/gardens/{garden_id}/beds/{bed}/divides", {
          params: { path: { garden_id: garden, bed } },
          body: sent,
        }),
      );
    },
  });

/** What a support of one family would start with, and what was asked for it: that is made as it was seen. */
export const useProposal = (
  garden: number,
  bed: string,
  need: Schemas["NeedIn"],
  units: string | undefined,
) =>
  useQuery({
    queryKey: ["proposal", garden, bed, need, units],
    enabled: need.chosen != null,
    queryFn: async () => ({
      asked: need,
      ...(await exactly<Schemas["ProposalOut"]>(
        api.POST("/api/gardens/{garden_id}/beds/{bed}/proposal", {
          params: { path: { garden_id: garden, bed } },
          body: need,
        }),
      )),
    }),
    placeholderData: keepPreviousData,
  });
