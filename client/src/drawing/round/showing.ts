import {
  BufferGeometry,
  Color,
  DoubleSide,
  InstancedMesh,
  Matrix4,
  MeshLambertMaterial,
  Vector3,
} from "three";

import type { Report, Schemas } from "../../api/client";

export type Solid = Schemas["Solid"];
export type Place = readonly [number, number, number];

/**
 * What of a structure the picture shows: its week, its weakest link, the hour of the sun, a person for its
 * size.
 */
export interface Showing {
  solid: Solid;
  foliage: Report["foliage"];
  week: number;
  weak: ReadonlySet<string>;
  short: boolean;
  lit: ReadonlySet<string>;
  sun: Place | null;
  person: number;
}

/** From metres along the row, across it and up, to the picture's own axes. */
export const put = ([x, y, z]: Place) => new Vector3(x, z, -y);

export function instances(
  shape: BufferGeometry,
  found: readonly { at: Matrix4; colour: string }[],
): InstancedMesh {
  const mesh = new InstancedMesh(shape, new MeshLambertMaterial({ side: DoubleSide }), found.length);
  for (const [i, each] of found.entries()) {
    mesh.setMatrixAt(i, each.at);
    mesh.setColorAt(i, new Color(each.colour));
  }
  mesh.castShadow = true;
  mesh.receiveShadow = true;
  return mesh;
}
