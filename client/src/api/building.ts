import { useQuery } from "@tanstack/react-query";

import { api, exactly, type Schemas } from "./client";

export type Building = Schemas["BuildOut"];
export type Step = Schemas["StepReport"];

export const buildingKey = (id: number) => ["building", id] as const;

/** How a structure is built, and what of it is done. */
export const useBuilding = (id: number) =>
  useQuery({
    queryKey: buildingKey(id),
    queryFn: ({ signal }) =>
      exactly<Building>(
        api.GET("/api/structures/{structure_id}/building", {
          signal,
          params: { path: { structure_id: id } },
        }),
      ),
  });

/** A structure in the round, as it is being built. */
export const useBuiltRound = (id: number) =>
  useQuery({
    queryKey: [...buildingKey(id), "round"],
    queryFn: ({ signal }) =>
      exactly<Schemas["SolidReport"]>(
        api.GET("/api/structures/{structure_id}/round", { signal, params: { path: { structure_id: id } } }),
      ),
  });
