import { useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";

import { type Building, buildingKey } from "./building";
import type { Garden, Schemas } from "./client";
import { merged } from "./merged";
import { KEYS } from "./queries";
import { type Week, weekKey } from "./season";
import { keepSaid } from "./keepSaid";

/** Answers that are kept: what is no longer true of them, and what is known better. */
export function useFresh() {
  const queries = useQueryClient();
  return useMemo(() => {
    const again = (...what: string[]) =>
      Promise.all(what.map((first) => queries.invalidateQueries({ queryKey: [first] })));
    const garden = (known: Garden) => {
      queries.setQueryData(KEYS.garden(known.id), known);
      keepSaid(`/api/gardens/${known.id}`, () => queries.getQueryData(KEYS.garden(known.id)));
      void again("parts", "building", "week", "year", "weather", "lessons", "years");
      // what was removed is asked for no more, though its page may stand a moment longer
      const there = new Set(known.structures.map((each) => KEYS.structure(each.id).join()));
      void queries.invalidateQueries({
        queryKey: ["structure"],
        predicate: ({ queryKey }) => there.has(queryKey.join()),
      });
    };
    return {
      everything: () => queries.invalidateQueries(),
      again,
      /** Nothing of who was signed in is kept. */
      nothing: () => queries.clear(),
      signedIn: async (session: Schemas["SessionOut"]) => {
        queries.setQueryData(KEYS.session, session);
        await again("gardens");
      },
      signInAgain: () => {
        queries.removeQueries({ queryKey: KEYS.gardens });
        void again("session");
      },
      /** A garden as the server has just answered it, and what hangs on it. */
      garden,
      /** What of a garden has changed, and what hangs on it; asked for where something else has, too. */
      changed: (id: number, change: Schemas["GardenDifference"]) => {
        const now = queries.getQueryData<Garden>(KEYS.garden(id));
        if (now?.number !== change.since) void queries.invalidateQueries({ queryKey: KEYS.garden(id) });
        else garden(merged(now, change));
      },
      looksLike: (garden: Garden) => queries.setQueryData(KEYS.garden(garden.id), garden),
      structure: (structure: Schemas["StructureOut"]) =>
        queries.setQueryData(KEYS.structure(structure.id), structure),
      /** What is known of a building, with what has just got there. */
      building: (id: number, make: (now: Building) => Building) =>
        queries.setQueryData<Building>(buildingKey(id), (now) => now && make(now)),
      /** What is known of a week, with what has just got there. */
      week: (garden: number, make: (now: Week) => Week) =>
        queries.setQueryData<Week>(weekKey(garden), (now) => now && make(now)),
      people: (garden: number, people: Schemas["People"]) =>
        queries.setQueryData(KEYS.people(garden), people),
      gone: (garden: number) =>
        queries.setQueryData<Schemas["GardenName"][]>(KEYS.gardens, (now) =>
          now?.filter((each) => each.id !== garden),
        ),
      knownStructure: (id: number) => queries.getQueryData<Schemas["StructureOut"]>(KEYS.structure(id)),
    };
  }, [queries]);
}
