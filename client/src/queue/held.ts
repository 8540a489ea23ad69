import { api, Refused, taken, type Schemas } from "../api/client";
import { FIRST_PAUSE_MS, longer } from "./pauses";

const AGAIN = new Set([401, 403, 408, 429]);

export interface Text {
  written: string;
  /** It was asked for and not answered. */
  late: boolean;
}

type Asked = Schemas["QuantityIn"];
type Read = Schemas["QuantityOut"];

/**
 * Quantities on their way to be read; while the server does not answer they are held, also when their field
 * is gone.
 */
class Held {
  private texts: readonly Text[] = [];
  private readonly listeners = new Set<() => void>();
  private readonly waking = new Set<() => void>();

  constructor() {
    window.addEventListener("online", () => this.waking.forEach((wake) => wake()));
    window.addEventListener("beforeunload", (event) => {
      if (this.texts.length) event.preventDefault();
    });
  }

  readonly listen = (heard: () => void) => {
    this.listeners.add(heard);
    return () => this.listeners.delete(heard);
  };

  readonly now = () => this.texts;

  /** Have a text read; while there is no answer it is held, and asked again. A refusal is the field's. */
  async read(asked: Asked): Promise<Read> {
    const text = { written: asked.text, late: false };
    this.set([...this.texts, text]);
    try {
      for (let pause = FIRST_PAUSE_MS; ; pause = longer(pause)) {
        try {
          return await taken(api.POST("/api/quantities/read", { body: asked }));
        } catch (error) {
          if (error instanceof Refused && error.status < 500 && !AGAIN.has(error.status)) throw error;
          text.late = true;
          this.set([...this.texts]);
          await this.rest(pause);
        }
      }
    } finally {
      this.set(this.texts.filter((each) => each !== text));
    }
  }

  /** Wait until nothing is on its way, and the pages have taken in what was. */
  async quiet(): Promise<void> {
    while (this.texts.length)
      await new Promise<void>((heard) => {
        const stop = this.listen(() => {
          stop();
          heard();
        });
      });
    await new Promise((after) => setTimeout(after)); // what was read is put in before the next task
  }

  private rest(ms: number): Promise<void> {
    return new Promise((rested) => {
      const wake = () => {
        this.waking.delete(wake);
        clearTimeout(timer);
        rested();
      };
      const timer = setTimeout(wake, ms);
      this.waking.add(wake);
    });
  }

  private set(texts: readonly Text[]): void {
    this.texts = texts;
    this.listeners.forEach((heard) => heard());
  }
}

export const held = new Held();
