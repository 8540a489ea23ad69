export type Flat = readonly [number, number];

/** From metres to the sheet's pixels. */
export interface Scale {
  perMetre: number;
  at: (point: Flat) => [number, number];
}
