import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { api, exactly, taken, type Draft, type Report, type Schemas } from "./client";

// What is calculated of a draft: each is asked anew as the draft changes, and no more once its page is left.

type Structure = Pick<Schemas["StructureOut"], "id" | "units">;

const of = ({ id }: Structure) => ({ path: { structure_id: id } });
/** The last answer stays while the next is on its way. */
const KEPT = { placeholderData: keepPreviousData } as const;

/** The report of a draft. */
export const reportOf = (id: number, body: { draft: Draft; day: string | null }, signal: AbortSignal) =>
  exactly<Report>(
    api.POST("/api/structures/{structure_id}/report", {
      signal,
      params: { path: { structure_id: id } },
      body,
    }),
  );

/** The report that a list of parts is read from. */
export const usePartsReport = (id: number, draft: Draft | undefined) =>
  useQuery({
    queryKey: ["parts", id, draft],
    enabled: draft !== undefined,
    queryFn: ({ signal }) => {
      if (!draft) throw new Error("no structure");
      return reportOf(id, { draft, day: null }, signal);
    },
  });

export const useCurve = (structure: Structure, draft: Draft, option: string) =>
  useQuery({
    ...KEPT,
    queryKey: ["curve", structure.id, option, draft, structure.units],
    queryFn: ({ signal }) =>
      taken(
        api.POST("/api/structures/{structure_id}/curve", {
          params: of(structure),
          signal,
          body: { draft, option },
        }),
      ),
  });

export const useWays = (structure: Structure, asked: Schemas["WishIn"]) =>
  useQuery({
    ...KEPT,
    queryKey: ["ways", structure.id, asked, structure.units],
    queryFn: ({ signal }) =>
      taken(api.POST("/api/structures/{structure_id}/ways", { params: of(structure), signal, body: asked })),
  });

export const useSensitivity = (structure: Structure, draft: Draft) =>
  useQuery({
    ...KEPT,
    queryKey: ["sensitivity", structure.id, draft, structure.units],
    queryFn: ({ signal }) =>
      taken(
        api.POST("/api/structures/{structure_id}/sensitivity", {
          params: of(structure),
          signal,
          body: { draft },
        }),
      ),
  });

export const useSolid = (structure: Structure, draft: Draft, day: string | null) =>
  useQuery({
    ...KEPT,
    queryKey: ["solid", structure.id, draft, day, structure.units],
    queryFn: ({ signal }) =>
      exactly<Schemas["SolidReport"]>(
        api.POST("/api/structures/{structure_id}/solid", {
          params: of(structure),
          signal,
          body: { draft, day },
        }),
      ),
  });

export const useFixes = (structure: Structure, draft: Draft, link: string) =>
  useQuery({
    queryKey: ["fixes", structure.id, link, draft, structure.units],
    queryFn: ({ signal }) =>
      taken(
        api.POST("/api/structures/{structure_id}/fixes", {
          params: of(structure),
          signal,
          body: { draft, link },
        }),
      ),
  });

/** What a draft can have of the shed. */
export const askTake = (id: number, draft: Draft) =>
  exactly<Schemas["TakenOut"]>(
    api.POST("/api/structures/{structure_id}/take", {
      params: { path: { structure_id: id } },
      body: { draft, have: true },
    }),
  );

export const useSizing = (structure: Structure, draft: Draft, wanted: Schemas["SizingWanted"] | null) =>
  useQuery({
    queryKey: ["sizing", structure.id, draft, structure.units, wanted],
    enabled: wanted !== null,
    queryFn: ({ signal }) =>
      taken(
        api.POST("/api/structures/{structure_id}/sizing", {
          params: of(structure),
          signal,
          body: { draft, wanted: wanted ?? { aim: "cheapest", locked: [], shed: true } },
        }),
      ),
  });
