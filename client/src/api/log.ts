import { useInfiniteQuery, useQuery } from "@tanstack/react-query";

import { api, exactly, type Schemas } from "./client";

export type Log = Schemas["LogOut"];
export type EntryRow = Schemas["EntryRow"];
export type EntryChange = Schemas["EntryChange"];
export type LogKind = Schemas["LogKindReport"];

export interface LogAsked {
  kind: string;
  about: string;
}

/** A garden’s log by pages, the latest first. */
export const useLog = (garden: number, asked: LogAsked) =>
  useInfiniteQuery({
    queryKey: ["log", garden, asked],
    initialPageParam: "",
    getNextPageParam: (last: Log) => last.next || undefined,
    queryFn: ({ signal, pageParam }) =>
      exactly<Log>(
        api.GET("/api/gardens/{garden_id}/log", {
          signal,
          params: {
            path: { garden_id: garden },
            query: {
              before: pageParam,
              about: asked.about,
              ...(asked.kind && { kind: asked.kind as NonNullable<EntryChange["kind"]> }),
            },
          },
        }),
      ),
  });

/** What a typed line says, before it is saved. */
export const useLineRead = (garden: number, line: string, about: string) =>
  useQuery({
    queryKey: ["log-line", garden, line, about],
    enabled: line.trim().length > 2,
    retry: false,
    queryFn: ({ signal }) =>
      exactly<Schemas["LogLineOut"]>(
        api.POST("/api/gardens/{garden_id}/log/read", {
          signal,
          params: { path: { garden_id: garden } },
          body: { line, about },
        }),
      ),
  });

/** What the log of a garden teaches. */
export const useLessons = (garden: number) =>
  useQuery({
    queryKey: ["lessons", garden],
    queryFn: ({ signal }) =>
      exactly<Schemas["LessonsOut"]>(
        api.GET("/api/gardens/{garden_id}/lessons", { signal, params: { path: { garden_id: garden } } }),
      ),
  });

/** A garden’s years side by side. */
export const useYears = (garden: number) =>
  useQuery({
    queryKey: ["years", garden],
    queryFn: ({ signal }) =>
      exactly<Schemas["YearsOut"]>(
        api.GET("/api/gardens/{garden_id}/years", { signal, params: { path: { garden_id: garden } } }),
      ),
  });

/** The life of a support. */
export const useLife = (structure: number) =>
  useQuery({
    queryKey: ["life", structure],
    queryFn: ({ signal }) =>
      exactly<Schemas["LifeOut"]>(
        api.GET("/api/structures/{structure_id}/life", {
          signal,
          params: { path: { structure_id: structure } },
        }),
      ),
  });
