import { keepPreviousData, useQuery } from "@tanstack/react-query";

import { api, exactly, type Schemas } from "./client";

export type Week = Schemas["WeekOut"];
export type Year = Schemas["YearOut"];
export type Weather = Schemas["WeatherOut"];
export type Task = Schemas["TaskReport"];
export type Visit = Schemas["VisitReport"];
export type YearRow = Schemas["YearRow"];
export type Growing = Schemas["GrowingReport"];

const COMING_MS = 1000;
export const weekKey = (garden: number) => ["week", garden] as const;

/** What is due in a garden today, what was left, and what comes. */
export const useWeek = (garden: number, asked = true) =>
  useQuery({
    queryKey: weekKey(garden),
    enabled: asked,
    queryFn: ({ signal }) =>
      exactly<Week>(
        api.GET("/api/gardens/{garden_id}/week", { signal, params: { path: { garden_id: garden } } }),
      ),
  });

/** A garden's year: every structure with what grows on it. */
export const useYear = (garden: number) =>
  useQuery({
    queryKey: ["year", garden],
    queryFn: ({ signal }) =>
      exactly<Year>(
        api.GET("/api/gardens/{garden_id}/year", { signal, params: { path: { garden_id: garden } } }),
      ),
  });

/** What it does to a structure when its picks are missed now. */
export const useSkipped = (structure: number, asked: boolean) =>
  useQuery({
    queryKey: ["skipped", structure],
    enabled: asked,
    queryFn: ({ signal }) =>
      exactly<Schemas["SkippedOut"]>(
        api.GET("/api/structures/{structure_id}/skipped", {
          signal,
          params: { path: { structure_id: structure } },
        }),
      ),
  });

/** The address of a garden’s calendar feed, if it has one; asked by those who may change it. */
export const useFeed = (garden: number, mayEdit: boolean) =>
  useQuery({
    queryKey: ["feed", garden],
    enabled: mayEdit,
    queryFn: () =>
      exactly<Schemas["FeedOut"]>(
        api.GET("/api/gardens/{garden_id}/feed", { params: { path: { garden_id: garden } } }),
      ),
  });

/** What is expected of the weather, a storm in it, and one that was. */
export const useWeather = (garden: number) =>
  useQuery({
    queryKey: ["weather", garden],
    queryFn: ({ signal }) =>
      exactly<Weather>(
        api.GET("/api/gardens/{garden_id}/weather", { signal, params: { path: { garden_id: garden } } }),
      ),
    // what is being asked for elsewhere appears when it has come
    refetchInterval: ({ state }) => (state.data?.coming ? COMING_MS : false),
  });

/** A structure’s year with one of its plantings on another day; nothing is stored. */
export const useSown = (garden: number, sown: Schemas["SownIn"] | null) =>
  useQuery({
    queryKey: ["sown", garden, sown],
    enabled: sown !== null,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      exactly<YearRow>(
        api.POST("/api/gardens/{garden_id}/year/draft", {
          signal,
          params: { path: { garden_id: garden } },
          body: sown ?? {
            structure: "",
            planting: "",
            planted: "2026-01-05",
            monday: "2026-01-05",
            weeks: 1,
          },
        }),
      ),
  });
