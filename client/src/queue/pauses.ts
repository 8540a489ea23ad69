/**
 * How long to wait before asking a server that did not answer once more: a second, then twice as long each
 * time.
 */
export const FIRST_PAUSE_MS = 1000;
export const longer = (pause: number) => Math.min(pause * 2, 20_000);
