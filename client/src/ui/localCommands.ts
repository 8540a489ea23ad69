import type { Command } from "./Palette";

const NONE: readonly Command[] = [];
let commands = NONE;
const listeners = new Set<() => void>();

/** What can be done on the screen in front, for the quick way by typing. */
export const localCommands = {
  now: () => commands,
  listen: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  /** Offer commands until the returned function is called. */
  offer: (offered: readonly Command[]) => {
    commands = offered;
    for (const listener of listeners) listener();
    return () => {
      if (commands === offered) commands = NONE;
      for (const listener of listeners) listener();
    };
  },
};
