import {
  BoxGeometry,
  BufferGeometry,
  CapsuleGeometry,
  CircleGeometry,
  Color,
  DoubleSide,
  Group,
  Mesh,
  MeshLambertMaterial,
  PlaneGeometry,
  ShadowMaterial,
  SphereGeometry,
} from "three";

import type { Showing, Solid } from "./showing";

const SOIL_MORE = 0.3; // of soil shown below the deepest post [m]

/** The bed in two halves, of which the one behind is shown, so that what stands in the soil is seen. */
export function soil(
  { ground }: Solid,
  ink: (name: string) => string,
): { near: Group; far: Group; middle: number } {
  const [x0, y0] = ground.low;
  const [x1, y1] = ground.high;
  const deep = Math.max(ground.depth, ground.fill_depth) + SOIL_MORE;
  const half = (low: number, high: number): Group => {
    const group = new Group();
    const block = (top: number, foot: number, name: string) => {
      if (top - foot < 0.01) return;
      const mesh = new Mesh(
        new BoxGeometry(x1 - x0, top - foot, high - low),
        new MeshLambertMaterial({ color: new Color(ink(name)) }),
      );
      mesh.position.set((x0 + x1) / 2, (top + foot) / 2, -(low + high) / 2);
      mesh.receiveShadow = true;
      group.add(mesh);
    };
    block(-0.002, -ground.fill_depth, "--fill");
    block(-Math.max(ground.fill_depth, 0.002), -deep, "--soil");
    if (ground.fill_depth > 0.02) {
      const side = high > 0.001 ? high : low;
      const board = new Mesh(
        new BoxGeometry(x1 - x0 + 2 * ground.board, ground.fill_depth + 0.03, Math.max(ground.board, 0.01)),
        new MeshLambertMaterial({ color: new Color(ink("--wood")) }),
      );
      board.position.set((x0 + x1) / 2, -ground.fill_depth / 2 + 0.015, -side);
      board.castShadow = true;
      group.add(board);
    }
    return group;
  };
  return { near: half(Math.min(y0, 0), 0), far: half(0, Math.max(y1, 0)), middle: 0 };
}

/** Ground all round that shows nothing but shadow. */
export function floor(reach: number): Mesh {
  const mesh = new Mesh(new PlaneGeometry(reach * 9, reach * 9), new ShadowMaterial({ opacity: 0.22 }));
  mesh.rotation.x = -Math.PI / 2;
  mesh.position.y = -0.001;
  mesh.receiveShadow = true;
  return mesh;
}

/** Somebody standing beside it, in one ink, for its size. */
export function person({ solid, person: tall }: Showing, ink: (name: string) => string): Group {
  const group = new Group();
  const stuff = new MeshLambertMaterial({ color: new Color(ink("--stone2")) });
  const piece = (shape: BufferGeometry, x: number, y: number, lean = 0) => {
    const mesh = new Mesh(shape, stuff);
    mesh.position.set(x * tall, y * tall, 0);
    mesh.rotation.z = lean;
    mesh.castShadow = true;
    group.add(mesh);
  };
  piece(new SphereGeometry(0.062 * tall, 14, 12), 0, 0.93);
  piece(new CapsuleGeometry(0.085 * tall, 0.22 * tall, 4, 12), 0, 0.66);
  piece(new CapsuleGeometry(0.045 * tall, 0.4 * tall, 4, 10), -0.055, 0.25, 0.03);
  piece(new CapsuleGeometry(0.045 * tall, 0.4 * tall, 4, 10), 0.055, 0.25, -0.03);
  piece(new CapsuleGeometry(0.03 * tall, 0.3 * tall, 4, 8), -0.14, 0.62, -0.16);
  piece(new CapsuleGeometry(0.03 * tall, 0.3 * tall, 4, 8), 0.14, 0.62, 0.16);
  const stands = new Mesh(
    new CircleGeometry(0.28 * tall, 24),
    new MeshLambertMaterial({ color: new Color(ink("--hair")), side: DoubleSide }),
  );
  stands.rotation.x = -Math.PI / 2;
  stands.position.y = -0.004;
  stands.receiveShadow = true;
  group.add(stands);
  group.position.set(solid.ground.high[0] + 0.45, 0, Math.min(solid.ground.high[1], 0.6));
  return group;
}
