import { openDB, type DBSchema, type IDBPDatabase } from "idb";

import type { Write } from "./writes";

const OPENING_MS = 4000; // a browser whose database does not open in that time has none for us

interface Base extends DBSchema {
  writes: { key: string; value: Write };
}

/**
 * Where writes are kept across reloads and tabs; when the browser will not, they are only in this page, and
 * `kept` says so.
 */
export class Store {
  kept = true;
  private readonly memory = new Map<string, Write>();
  private readonly opened: Promise<IDBPDatabase<Base> | null>;

  constructor() {
    const late = new Promise<never>((_, reject) =>
      setTimeout(() => reject(new Error("no answer")), OPENING_MS),
    );
    const open = async () =>
      openDB<Base>("ascent", 1, {
        upgrade: (base) => {
          base.createObjectStore("writes", { keyPath: "mark" });
        },
      });
    this.opened = Promise.race([late, open()]).catch(() => this.lost());
  }

  private lost(): null {
    this.kept = false;
    return null;
  }

  async all(): Promise<Write[]> {
    const base = await this.opened;
    const found = base ? await base.getAll("writes") : [];
    // what could not be stored is still here
    const stored = new Set(found.map((write) => write.mark));
    return [...found, ...[...this.memory.values()].filter((write) => !stored.has(write.mark))].sort(
      (a, b) => a.at - b.at,
    );
  }

  async put(write: Write): Promise<void> {
    const base = await this.opened;
    try {
      if (!base) throw new Error("no database");
      await base.put("writes", write);
      this.memory.delete(write.mark);
    } catch {
      this.memory.set(write.mark, write);
      this.lost();
    }
  }

  /**
   * Change a write as it is stored now, in one step; null leaves it. The answer is what is stored afterwards.
   */
  async change(mark: string, make: (now: Write) => Write | null): Promise<Write | undefined> {
    const base = await this.opened;
    const mine = this.memory.get(mark);
    if (!base || mine) {
      const next = mine && make(mine);
      if (next) this.memory.set(mark, next);
      return next ?? mine;
    }
    const step = base.transaction("writes", "readwrite");
    const now = await step.store.get(mark);
    const next = now && make(now);
    if (next) await step.store.put(next);
    await step.done;
    return next ?? now;
  }

  async remove(mark: string): Promise<void> {
    this.memory.delete(mark);
    await (await this.opened)?.delete("writes", mark);
  }
}
