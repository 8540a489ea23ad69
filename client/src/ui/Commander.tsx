import { useColorScheme } from "@mui/material/styles";
import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from "react";
import { matchPath, useLocation, useNavigate } from "react-router";

import { useGarden, useGardens } from "../api/queries";
import { useFresh } from "../api/useFresh";
import { type Command, Palette } from "./Palette";
import { localCommands } from "./localCommands";
import { useLogging } from "./useLogging";
import { say } from "../texts/say";

/** Ctrl K or / opens the quick way to anything; the screen in front adds what can be done on it. */
export function Commander() {
  const [open, setOpen] = useState(false);
  const navigate = useNavigate();
  const location = useLocation();
  const fresh = useFresh();
  const gardens = useGardens();
  const { mode, systemMode, setMode } = useColorScheme();
  const local = useSyncExternalStore(localCommands.listen, localCommands.now);
  const dark = (mode === "system" ? systemMode : mode) === "dark";
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (
        ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") ||
        (event.key === "/" && !typing)
      ) {
        event.preventDefault();
        setOpen(true);
      }
    };
    const onAsk = () => setOpen(true);
    window.addEventListener("keydown", onKey);
    window.addEventListener("ascent-palette", onAsk);
    return () => {
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("ascent-palette", onAsk);
    };
  }, []);
  const close = useCallback(() => setOpen(false), []);
  const structureId = Number(matchPath("/structures/:id/*", location.pathname)?.params.id ?? 0);
  const structure = fresh.knownStructure(structureId);
  const gardenId = Number(
    matchPath("/gardens/:id/*", location.pathname)?.params.id ??
      structure?.garden ??
      gardens.data?.[0]?.id ??
      0,
  );
  const garden = useGarden(open ? gardenId : 0).data;
  const commands = useMemo(() => {
    if (!open) return [];
    const go = (path: string) => () => void navigate(path);
    const found: Command[] = [...local];
    if (garden) {
      const canEdit = garden.role !== "read";
      for (const row of garden.structures) {
        found.push({
          name: row.name,
          hint: say("ui.bench", { crops: row.crops }),
          run: go(`/structures/${row.id}`),
        });
        found.push({
          name: say("ui.partsFor", { name: row.name }),
          hint: say("ui.whatToBuy"),
          run: go(`/structures/${row.id}/parts`),
        });
      }
      for (const bed of garden.beds) {
        found.push({
          name: bed.fields.name,
          hint: say("ui.onThePlan", { words: bed.words }),
          run: go(`/gardens/${garden.id}?on=${bed.key}`),
        });
        if (canEdit)
          found.push({
            name: say("ui.planASupportOn", { name: bed.fields.name }),
            hint: "",
            run: go(`/gardens/${garden.id}/beds/${bed.key}/new`),
          });
      }
      for (const feature of garden.features)
        found.push({
          name: feature.fields.name,
          hint: say("ui.onThePlan", { words: feature.words }),
          run: go(`/gardens/${garden.id}?on=${feature.key}`),
        });
      found.push({ name: say("ui.planOfTheGarden"), hint: garden.name, run: go(`/gardens/${garden.id}`) });
      found.push({
        name: say("common.shoppingList"),
        hint: say("ui.ofTheWholeGarden"),
        run: go(`/gardens/${garden.id}/parts`),
      });
      found.push({
        name: say("log.log"),
        hint: say("log.whatHappened"),
        run: go(`/gardens/${garden.id}/log`),
      });
      found.push({
        name: say("ui.history"),
        hint: say("ui.whoChangedWhatAndBackTo"),
        run: go(`/gardens/${garden.id}/history`),
      });
      found.push({
        name: say("ui.files"),
        hint: say("ui.planFileTablesDrawingsInAnd"),
        run: go(`/gardens/${garden.id}/files`),
      });
      if (garden.role === "owner")
        found.push({
          name: say("common.people"),
          hint: say("ui.shareThisGarden"),
          run: go(`/gardens/${garden.id}/people`),
        });
    }
    for (const each of gardens.data ?? [])
      if (each.id !== gardenId)
        found.push({
          name: each.name,
          hint: say("ui.gardenOf", { owner: each.owner }),
          run: go(`/gardens/${each.id}`),
        });
    found.push({
      name: say("common.howAscentCalculates"),
      hint: say("ui.theMethodItsSourcesAndIts"),
      run: go("/method"),
    });
    found.push({ name: say("ui.account2"), hint: say("ui.gardensPassword"), run: go("/account") });
    found.push({
      name: dark ? "Light" : "Dark",
      hint: say("ui.theme"),
      run: () => setMode(dark ? "light" : "dark"),
    });
    return found;
  }, [open, local, garden, gardenId, gardens.data, navigate, dark, setMode]);
  const about = structure?.key ?? "";
  const log = useLogging(gardenId);
  const mayLog = garden !== undefined && garden.role !== "read";
  return open ? (
    <Palette
      commands={commands}
      onLine={mayLog ? (line) => log({ line, ...(about && { structure: about }) }, line) : null}
      onClose={close}
    />
  ) : null;
}
