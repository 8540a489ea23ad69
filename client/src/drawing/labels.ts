/** Where the middle of a label lies, and how it is turned, degrees clockwise. */
export interface Spot {
  x: number;
  y: number;
  turn?: number;
}

type Box = readonly [left: number, top: number, right: number, bottom: number];

const APART = 2; // pixels between two labels

/**
 * The labels of a drawing, none over another: each takes the first of its places that is free, and what has
 * none is left out.
 */
export class Labels {
  private readonly taken: Box[] = [];
  private readonly drawn: Box[] = [];

  /**
   * The first spot where a label of that size meets nothing that is drawn and no other label, else no other
   * label; it is taken then. Null where there is none.
   */
  place<T extends Spot>(spots: readonly T[], long: number, high: number): T | null {
    for (const kept of [[...this.taken, ...this.drawn], this.taken])
      for (const spot of spots) {
        const box = around(spot, long, high);
        if (kept.some((other) => meet(box, other))) continue;
        this.taken.push(box);
        return spot;
      }
    return null;
  }

  /** Something is drawn there: labels lie elsewhere where they can. */
  avoid(spot: Spot, long: number, high: number): void {
    this.drawn.push(around(spot, long, high));
  }

  /** Take a place whatever lies there. */
  keep(spot: Spot, long: number, high: number): void {
    this.taken.push(around(spot, long, high));
  }
}

const meet = (a: Box, b: Box) => a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1];

function around({ x, y, turn = 0 }: Spot, long: number, high: number): Box {
  const [c, s] = [Math.abs(Math.cos((turn * Math.PI) / 180)), Math.abs(Math.sin((turn * Math.PI) / 180))];
  const [wide, tall] = [(long * c + high * s) / 2 + APART, (long * s + high * c) / 2 + APART];
  return [x - wide, y - tall, x + wide, y + tall];
}
