import { csrfToken, Refused, type Problem } from "../api/client";
import { isEditsIn } from "./answers";
import { leave, type Left, takeUpLeft } from "./left";
import { FIRST_PAUSE_MS, longer } from "./pauses";
import { Store } from "./store";
import { editsOf, rebased, type Join, type NewWrite, type Write } from "./writes";

const PATIENCE_MS = 30_000;
const KEEPALIVE_BYTES = 50_000;
const MOST_FAULTS = 5;
const MOST_LATELY = 20; // answers kept for what was made while they came
const AGAIN = new Set([0, 408, 429, 502, 503, 504, 507]);
const MOST_BUSY = 12; // answers of the server itself that it is busy with one write
const OUT = new Set([401, 403]);

export type Line = "open" | "away" | "out";
/** `asked`: whether somebody on this page waits for that answer. */
type Done = (write: Write, answer: unknown, asked: boolean) => void;

interface Asker {
  write: Write;
  resolve: (answer: unknown) => void;
  reject: (error: unknown) => void;
}

const newMark = () =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
const isProblems = (data: unknown): data is { problems: Problem[] } =>
  typeof data === "object" && data !== null && Array.isArray((data as { problems?: unknown }).problems);

/**
 * The one way to the server for everything that changes a garden: kept in the browser's database, sent in
 * order and once, again and again with growing pauses until it is answered, across reloads, tabs and a new
 * sign-in. What is refused is set aside with its words; what somebody else was faster with waits for a
 * decision and holds its garden's line.
 */
export class Queue {
  line: Line = "open";
  readonly ready: Promise<void>;
  private readonly store = new Store();
  private writes: Write[] = [];
  private me: string | null = null;
  private pause = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private pumping = false;
  private pumpAgain = false;
  private underWay = ""; // the mark that this page is sending or has the answer of
  private chain: Promise<unknown> = Promise.resolve();
  private lastAt = 0;
  private readonly own = new Set<string>(); // made by this page
  private readonly unstored = new Set<string>(); // on their way into the store
  private readonly joined = new Set<string>(); // stored, and since changed on this page
  private readonly lately = new Map<string, { write: Write; answer: unknown }>();
  private readonly listeners = new Set<() => void>();
  private readonly doners = new Set<Done>();
  private readonly askers = new Map<string, Asker>();
  private readonly tabs = "BroadcastChannel" in window ? new BroadcastChannel("ascent-queue") : null;

  constructor() {
    this.step(() => takeUpLeft((left) => this.takeUp(left)));
    this.ready = this.reload();
    this.tabs?.addEventListener("message", () => void this.reload().then(() => this.wake()));
    window.addEventListener("online", () => this.wake());
    window.addEventListener("focus", () => this.wake());
    document.addEventListener(
      "visibilitychange",
      () => document.visibilityState === "visible" && this.wake(),
    );
    window.addEventListener("pagehide", () =>
      leave(
        this.writes
          .filter(({ mark }) => this.unstored.has(mark) || this.joined.has(mark))
          .map((write) => ({ write, before: !this.unstored.has(write.mark) })),
      ),
    );
    window.addEventListener("beforeunload", (event) => {
      if (!this.store.kept && this.mine().length) event.preventDefault();
    });
  }

  /** Whether the browser keeps what waits when this page is left. */
  get kept(): boolean {
    return this.store.kept;
  }

  readonly listen = (heard: () => void) => {
    this.listeners.add(heard);
    return () => this.listeners.delete(heard);
  };

  /** Hear of every write that has got there, with its answer. */
  onDone(heard: Done): () => void {
    this.doners.add(heard);
    return () => this.doners.delete(heard);
  }

  /** Everything kept, in order; a new array whenever something changes. */
  readonly now = () => this.writes;

  mine(): Write[] {
    return this.writes.filter((write) => write.who === this.me);
  }

  /** Who is signed in: their writes go on. */
  signedIn(name: string | null): void {
    if (this.me === name) return;
    this.me = name;
    this.writes = [...this.writes];
    this.changed();
    this.wake();
  }

  /** Keep a write and send it, after a rest of the hand if one is given. */
  put(wanted: NewWrite, join?: Join, restMs = 0): string {
    const last = this.mine()
      .filter((write) => write.lane === wanted.lane)
      .at(-1);
    // only what this page has made, seen and not sent is added to: nobody else changes that
    const open =
      last &&
      this.own.has(last.mark) &&
      last.tries === 0 &&
      last.state === "waiting" &&
      last.about === wanted.about &&
      wanted.knows?.includes(last.mark);
    const joined = open ? join?.(last) : null;
    if (last && joined) {
      this.show({ ...last, ...joined });
      this.joined.add(last.mark);
      this.step(() => this.persist(last.mark));
      this.wake(restMs);
      return last.mark;
    }
    const write = this.made(wanted);
    const outlived = this.mine().filter(
      (each) =>
        each.state === "refused" && each.about === wanted.about && each.about.startsWith("structure/"),
    );
    this.add(write, outlived);
    this.wake(restMs);
    return write.mark;
  }

  /** Keep a write, and wait for its answer as long as this page is there; a refusal is the asker's. */
  ask(wanted: NewWrite): Promise<unknown> {
    const mark = this.put(wanted);
    const write = this.writes.find((each) => each.mark === mark);
    return new Promise((resolve, reject) => write && this.askers.set(mark, { write, resolve, reject }));
  }

  /** Send what was set aside once more, mended. */
  mend(mark: string, body: unknown): void {
    this.replace(mark, (now) => ({
      ...now,
      mark: newMark(),
      knows: [],
      body,
      tries: 0,
      faults: 0,
      state: "waiting",
      problems: [],
    }));
  }

  /** After someone else was first: what goes out again, or nothing. */
  settle(mark: string, body: unknown): void {
    if (body === null) this.drop(mark);
    else
      this.replace(mark, (now) => ({
        ...now,
        mark: newMark(),
        knows: [],
        body,
        tries: 0,
        state: "waiting",
        saved: undefined,
      }));
  }

  drop(mark: string): void {
    this.writes = this.writes.filter((write) => write.mark !== mark);
    this.changed();
    this.step(async () => {
      await this.store.remove(mark);
      await this.mirror();
      this.tell();
    });
    this.wake();
  }

  /** Nothing of whoever is signed in is sent any more: the account is gone. */
  async forgetMine(): Promise<void> {
    const gone = this.mine();
    this.writes = this.writes.filter((write) => !gone.includes(write));
    this.changed();
    this.step(async () => {
      for (const write of gone) await this.store.remove(write.mark);
      this.tell();
    });
    await this.chain;
  }

  /** Try now, or when the hand has rested. */
  wake(restMs = 0): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.pump(), restMs);
  }

  private made(wanted: NewWrite): Write {
    this.lastAt = Math.max(this.lastAt + 0.001, Date.now());
    return {
      knows: [],
      ...wanted,
      mark: newMark(),
      who: this.me ?? "",
      at: this.lastAt,
      tries: 0,
      state: "waiting",
      problems: [],
    };
  }

  private add(write: Write, instead: readonly Write[] = []): void {
    this.own.add(write.mark);
    this.unstored.add(write.mark);
    this.writes = [...this.writes.filter((each) => !instead.includes(each)), write];
    this.changed();
    this.step(async () => {
      for (const each of instead) await this.store.remove(each.mark);
      await this.persist(write.mark);
      this.tell();
    });
  }

  /**
   * Store a write of this page as it stands, unless it has been sent: what came too late to go with it goes
   * by itself.
   */
  private async persist(mark: string): Promise<void> {
    const mine = this.writes.find((write) => write.mark === mark);
    if (!mine || mine.tries > 0) return; // gone, or sent as it stood
    if (this.unstored.has(mark)) {
      await this.store.put(mine);
      this.unstored.delete(mark);
      return;
    }
    const stored = await this.store.change(mark, (now) => (now.tries === 0 ? mine : null));
    if (this.writes.includes(mine)) this.joined.delete(mark);
    if (stored?.tries === 0) return;
    const late = beyond(mine, stored);
    this.writes = this.writes.filter((write) => write.mark !== mark);
    if (late) this.add({ ...mine, mark: newMark(), knows: [...mine.knows, mark], body: late });
    await this.mirror();
    this.wake();
  }

  private replace(mark: string, make: (now: Write) => Write): void {
    const old = this.writes.find((write) => write.mark === mark);
    if (!old) return;
    const next = make(old);
    this.writes = this.writes.map((write) => (write === old ? next : write));
    this.changed();
    this.step(async () => {
      await this.store.put(next);
      await this.store.remove(mark);
      await this.mirror();
      this.tell();
    });
    this.wake();
  }

  private show(write: Write): void {
    this.writes = this.writes.map((each) => (each.mark === write.mark ? write : each));
    this.changed();
  }

  /** Store what a page before this one was left with. */
  private async takeUp({ write, before }: Left): Promise<void> {
    const stored = await this.store.change(write.mark, (now) => (now.tries === 0 ? write : null));
    if (stored && (stored.tries === 0 || !before)) return;
    // what was sent meanwhile without its last words: they go by themselves
    await this.store.put(
      before ? { ...write, mark: newMark(), knows: [...write.knows, write.mark], tries: 0 } : write,
    );
  }

  private step(go: () => Promise<unknown>): void {
    this.chain = this.chain.then(go, go);
  }

  private async reload(): Promise<void> {
    await this.chain.catch(() => undefined);
    await this.mirror();
  }

  /**
   * Show what is stored, and what this page has not stored yet. It waits for no step, so that a step may call
   * it.
   */
  private async mirror(): Promise<void> {
    const stored = await this.store.all();
    const shown = new Map(this.writes.map((write) => [write.mark, write]));
    const known = new Set(stored.map((write) => write.mark));
    const coming = this.writes.filter((write) => this.unstored.has(write.mark) && !known.has(write.mark));
    const fresh = stored.map((write) => {
      const mine = this.own.has(write.mark) ? shown.get(write.mark) : undefined;
      return mine && mine.state === write.state && mine.tries >= write.tries ? mine : write;
    });
    this.writes = [...fresh, ...coming].sort((a, b) => a.at - b.at);
    this.changed();
    this.heed();
  }

  /**
   * What somebody on this page waits for, and another tab has had the answer to: asked for once more, or told
   * that it was refused.
   */
  private heed(): void {
    for (const [mark, asker] of this.askers) {
      const write = this.writes.find((each) => each.mark === mark);
      if (write?.state === "waiting" || mark === this.underWay) continue;
      this.askers.delete(mark);
      if (write) {
        this.drop(mark);
        asker.reject(new Refused(422, write.problems, write.saved));
      } else
        void this.fetched(asker.write).then(({ status, data }) =>
          status >= 200 && status < 300
            ? asker.resolve(data)
            : asker.reject(new Refused(status, isProblems(data) ? data.problems : [])),
        );
    }
  }

  private changed(): void {
    this.listeners.forEach((heard) => heard());
  }

  private tell(): void {
    this.tabs?.postMessage("changed");
  }

  /**
   * Send what waits, one after another; one tab at a time. What comes meanwhile is seen by the same run, or
   * by one more.
   */
  private async pump(): Promise<void> {
    if (this.pumping) {
      this.pumpAgain = true;
      return;
    }
    this.pumping = true;
    this.pumpAgain = false;
    try {
      // the type says it is always there; a page that came by plain HTTP has none
      const locks = navigator.locks as LockManager | undefined;
      if (locks) await locks.request("ascent-queue", () => this.run());
      else await this.run();
    } finally {
      this.pumping = false;
      this.pumpOnce();
    }
  }

  private pumpOnce(): void {
    if (this.pumpAgain) this.wake();
  }

  private async run(): Promise<void> {
    for (let next = await this.pick(); next; next = await this.pick()) {
      if (!(await this.sent(next))) {
        this.pause = this.pause ? longer(this.pause) : FIRST_PAUSE_MS;
        this.wake(this.pause * (0.8 + 0.4 * Math.random()));
        return;
      }
      this.pause = 0;
    }
    this.setLine("open");
  }

  /** The first write that may go, marked as sent before it is; from then on nothing is added to it. */
  private async pick(): Promise<Write | undefined> {
    await this.chain.catch(() => undefined);
    if (this.me === null) return undefined;
    const all = this.mine();
    const held = new Set(all.filter((write) => write.state === "stale").map((write) => write.lane));
    const next = all.find((write) => write.state === "waiting" && !held.has(write.lane));
    if (!next) return undefined;
    const going = { ...this.abreast(next), tries: next.tries + 1 };
    const own = this.own.has(next.mark);
    if (own) this.show(going);
    const stored = await this.store.change(next.mark, (now) =>
      now.state !== "waiting" || now.tries > next.tries
        ? null
        : own
          ? going
          : { ...this.abreast(now), tries: now.tries + 1 },
    );
    if (stored?.state === "waiting" && stored.tries === going.tries) {
      this.show(stored);
      return stored;
    }
    await this.mirror(); // another tab was faster
    return this.pick();
  }

  /** A write made while what it builds on was just being answered, brought up to that answer. */
  private abreast(write: Write): Write {
    return write.knows.reduce((now, mark) => {
      const known = this.lately.get(mark);
      return known ? rebased(now, known.write, known.answer) : now;
    }, write);
  }

  /** Send one write and do what its answer asks for; false when it must be sent again later. */
  private async sent(write: Write): Promise<boolean> {
    this.underWay = write.mark;
    try {
      return await this.answered(write, await this.fetched(write));
    } finally {
      this.underWay = "";
    }
  }

  private async answered(
    write: Write,
    { status, data }: { status: number; data: unknown },
  ): Promise<boolean> {
    // a server that answers is there: what it fails at again and again must not hold up what comes after it
    const own = isProblems(data);
    const faults = (write.faults ?? 0) + (status === 500 || (status === 503 && own) ? 1 : 0);
    const most = status === 500 ? MOST_FAULTS : MOST_BUSY;
    if (faults < most && (AGAIN.has(status) || status === 500)) {
      if (faults !== (write.faults ?? 0)) await this.change(write, { faults });
      this.setLine("away");
      return false;
    }
    if (OUT.has(status)) {
      this.setLine("out");
      return false;
    }
    this.setLine("open");
    if (status >= 200 && status < 300) await this.got(write, data);
    else await this.refused(write, status, data);
    this.tell();
    return true;
  }

  private async fetched(write: Write): Promise<{ status: number; data: unknown }> {
    const body = write.method === "DELETE" ? undefined : JSON.stringify(write.body ?? {});
    try {
      const answer = await fetch(write.path, {
        method: write.method,
        headers: {
          "Content-Type": "application/json",
          "X-CSRFToken": csrfToken(),
          "Ascent-Mark": write.mark,
          "Ascent-Who": encodeURIComponent(write.who),
        },
        ...(body === undefined ? {} : { body }),
        keepalive: (body?.length ?? 0) < KEEPALIVE_BYTES,
        signal: AbortSignal.timeout(PATIENCE_MS),
      });
      const data: unknown = await answer.json().catch(() => null);
      // half an answer is none: it is asked for again, and the server knows the mark
      return { status: answer.ok && data === null ? 0 : answer.status, data };
    } catch {
      return { status: 0, data: null };
    }
  }

  private async got(write: Write, answer: unknown): Promise<void> {
    this.lately.set(write.mark, { write, answer });
    for (const mark of [...this.lately.keys()].slice(0, -MOST_LATELY)) this.lately.delete(mark);
    await this.store.remove(write.mark);
    for (const each of this.mine()) {
      const next = rebased(each, write, answer);
      if (each.mark === write.mark || next === each) continue;
      this.show(next);
      if (this.own.has(each.mark)) this.step(() => this.persist(each.mark));
      else await this.store.change(each.mark, (now) => rebased(now, write, answer));
    }
    const asker = this.askers.get(write.mark);
    this.doners.forEach((heard) => heard(write, answer, asker !== undefined));
    asker?.resolve(answer);
    this.askers.delete(write.mark);
    // what is drawn from the answer is drawn first
    await new Promise((drawn) => setTimeout(drawn, 0));
    this.writes = this.writes.filter((each) => each.mark !== write.mark);
    this.changed();
  }

  private async refused(write: Write, status: number, data: unknown): Promise<void> {
    const problems = isProblems(data) ? data.problems : [];
    const asker = this.askers.get(write.mark);
    if (asker) {
      this.askers.delete(write.mark);
      await this.store.remove(write.mark);
      this.writes = this.writes.filter((each) => each.mark !== write.mark);
      this.changed();
      asker.reject(new Refused(status, problems, data));
      return;
    }
    if (status === 409 && !isProblems(data)) {
      await this.change(write, { state: "stale", saved: data });
      return;
    }
    const rest = withoutWrong(write, problems);
    if (rest) {
      // what was right keeps its mark, which what comes after it knows
      await this.store.put({ ...write, mark: newMark(), state: "refused", ...rest.wrong });
      await this.change(write, { ...rest.good, tries: 0 });
      await this.mirror();
    } else await this.change(write, { state: "refused", problems });
  }

  private async change(write: Write, what: Partial<Write>): Promise<void> {
    const next = await this.store.change(write.mark, (now) => ({ ...now, ...what }));
    if (next) this.show(next);
  }

  private setLine(line: Line): void {
    if (this.line === line) return;
    this.line = line;
    this.changed();
  }
}

/** Of edits that were sent together: those that were wrong, and the rest, which goes out again. */
function withoutWrong(
  write: Write,
  problems: Problem[],
): { good: Partial<Write>; wrong: Pick<Write, "body" | "problems"> } | null {
  const edits = isEditsIn(write.body) ? write.body.edits : null;
  const wrong = new Set(problems.map((each) => Number(/^edits\[(\d+)\]/.exec(each.path)?.[1] ?? -1)));
  if (!edits || wrong.has(-1) || wrong.size === 0 || wrong.size === edits.length) return null;
  const order = [...wrong].sort((a, b) => a - b);
  const told = problems.map((each) => ({
    ...each,
    path: each.path.replace(/^edits\[(\d+)\]/, (_, n: string) => `edits[${order.indexOf(Number(n))}]`),
  }));
  return {
    good: { body: { edits: edits.filter((_, i) => !wrong.has(i)) }, problems: [] },
    wrong: { body: { edits: edits.filter((_, i) => wrong.has(i)) }, problems: told },
  };
}

/**
 * What a write holds beyond what was sent of it, as the body of one more; null when nothing was late. Nothing
 * is added twice.
 */
function beyond(mine: Write, sent: Write | undefined): unknown {
  if (JSON.stringify(mine.body) === JSON.stringify(sent?.body)) return null;
  const edits = editsOf(mine);
  if (!edits.length) return mine.body;
  const gone = sent ? editsOf(sent).map((edit) => JSON.stringify(edit)) : [];
  const late = edits.filter(
    (edit, i) =>
      JSON.stringify(edit) !== gone[i] &&
      (edit.kind === "place" || edit.act !== "add" || (sent !== undefined && i >= gone.length)),
  );
  return late.length ? { edits: late } : null;
}

export const queue = new Queue();
