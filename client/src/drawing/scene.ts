import {
  AmbientLight,
  BoxGeometry,
  BufferGeometry,
  CapsuleGeometry,
  CircleGeometry,
  Color,
  CylinderGeometry,
  DirectionalLight,
  DoubleSide,
  Float32BufferAttribute,
  Group,
  HemisphereLight,
  IcosahedronGeometry,
  InstancedMesh,
  LineBasicMaterial,
  LineSegments,
  Matrix4,
  Mesh,
  MeshLambertMaterial,
  PCFShadowMap,
  PerspectiveCamera,
  PlaneGeometry,
  Quaternion,
  Scene,
  ShadowMaterial,
  SphereGeometry,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/addons/controls/OrbitControls.js";

import type { Report, Schemas } from "../api/client";

type Solid = Schemas["Solid"];
type Place = readonly [number, number, number];

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

/** A picture that can be turned: show something in it, turn it by keys, take it down. */
export interface Stage {
  show: (what: Showing) => void;
  turn: (sideways: number, upward: number, nearer: number) => void;
  size: (width: number, height: number) => void;
  close: () => void;
}

const UP = new Vector3(0, 1, 0);
const LEAVES = 56; // on a plant at its full height
const MOST_LEAVES = 8000;
const MANY = 400; // fruit, or tenfold leaves, of which each is drawn with fewer corners
const SLOW = 60; // for a frame of a turn to be drawn, past which the next are coarser [ms]
const SOIL_MORE = 0.3; // of soil shown below the deepest post [m]

/** From metres along the row, across it and up, to the picture's own axes. */
const put = ([x, y, z]: Place) => new Vector3(x, z, -y);
/** A number between 0 and 1 that is always the same for the same place. */
const chance = (seed: number) => (((Math.sin(seed * 127.1) * 43758.5453) % 1) + 1) % 1;

/** Set up a picture on a canvas; nothing moves in it unless a hand moves it. */
export function stage(canvas: HTMLCanvasElement, ink: (name: string) => string): Stage {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
  renderer.shadowMap.enabled = true;
  renderer.shadowMap.type = PCFShadowMap;
  renderer.shadowMap.autoUpdate = false; // the sun stands still while the picture is turned
  const fine = Math.min(window.devicePixelRatio, 2);
  renderer.setPixelRatio(fine);
  const camera = new PerspectiveCamera(32, 1, 0.05, 200);
  const scene = new Scene();
  const light = new DirectionalLight(0xffffff, 2.4);
  light.castShadow = true;
  light.shadow.mapSize.set(2048, 2048);
  light.shadow.bias = -0.0005;
  light.shadow.normalBias = 0.01;
  scene.add(
    new AmbientLight(0xffffff, 0.7),
    new HemisphereLight(0xffffff, 0x8a7256, 0.8),
    light,
    light.target,
  );
  const controls = new OrbitControls(camera, canvas);
  controls.enableDamping = false;
  controls.maxPolarAngle = Math.PI * 0.56;
  let built: Group | null = null;
  let cut: { near: Group; far: Group; middle: number } | null = null;
  let placed = false;
  let due = 0;
  let asked = 0; // when the frame that is due was asked for [ms]
  let held = false;

  const drawn = () => {
    due = 0;
    if (held && performance.now() - asked > SLOW && renderer.getPixelRatio() === fine)
      renderer.setPixelRatio(fine / 2); // coarser while it turns
    if (cut) {
      // the soil is cut open towards whoever looks
      const front = camera.position.z > cut.middle;
      if (cut.far.visible !== front) renderer.shadowMap.needsUpdate = true;
      cut.near.visible = !front;
      cut.far.visible = front;
    }
    renderer.render(scene, camera);
  };
  const draw = () => {
    if (due) return;
    asked = performance.now();
    due = requestAnimationFrame(drawn);
  };
  controls.addEventListener("change", draw);
  controls.addEventListener("start", () => {
    held = true;
  });
  controls.addEventListener("end", () => {
    held = false;
    if (renderer.getPixelRatio() !== fine) renderer.setPixelRatio(fine);
    draw();
  });

  const show = (what: Showing) => {
    if (built) {
      scene.remove(built);
      built.traverse((each) => {
        if (each instanceof Mesh || each instanceof LineSegments) (each.geometry as BufferGeometry).dispose();
      });
    }
    const { solid } = what;
    const middle = new Vector3((solid.ground.low[0] + solid.ground.high[0]) / 2, solid.top * 0.36, 0);
    const reach = Math.max(solid.ground.high[0] - solid.ground.low[0], solid.top * 1.6, 1.6);
    built = new Group();
    built.add(members(what, ink), plants(what, ink), person(what, ink));
    cut = soil(solid, ink);
    built.add(cut.near, cut.far, floor(reach));
    scene.add(built);
    const towards = what.sun ? put(what.sun) : new Vector3(-0.4, 1, 0.5).normalize();
    light.position.copy(middle).addScaledVector(towards, reach * 3);
    light.target.position.copy(middle);
    light.castShadow = what.sun !== null;
    Object.assign(light.shadow.camera, {
      left: -reach * 1.4,
      right: reach * 1.4,
      top: reach * 1.4,
      bottom: -reach * 1.4,
      near: 0.1,
      far: reach * 8,
    });
    light.shadow.camera.updateProjectionMatrix();
    renderer.shadowMap.needsUpdate = true;
    if (!placed) {
      placed = true;
      controls.target.copy(middle);
      camera.position
        .copy(middle)
        .add(new Vector3(-0.62, 0.42, 1.05).normalize().multiplyScalar(reach * 1.85));
      controls.minDistance = reach * 0.3;
      controls.maxDistance = reach * 6;
    }
    controls.update();
    draw();
  };

  const turn = (sideways: number, upward: number, nearer: number) => {
    const from = camera.position.clone().sub(controls.target);
    const long = from.length() * (1 - nearer);
    const around = Math.atan2(from.x, from.z) + sideways;
    const down = Math.min(Math.max(Math.acos(from.y / from.length()) - upward, 0.05), controls.maxPolarAngle);
    const kept = Math.min(Math.max(long, controls.minDistance), controls.maxDistance);
    camera.position
      .copy(controls.target)
      .add(
        new Vector3(
          Math.sin(down) * Math.sin(around),
          Math.cos(down),
          Math.sin(down) * Math.cos(around),
        ).multiplyScalar(kept),
      );
    controls.update();
    draw();
  };

  return {
    show,
    turn,
    size: (width, height) => {
      renderer.setSize(width, height, false);
      camera.aspect = width / Math.max(height, 1);
      camera.updateProjectionMatrix();
      draw();
    },
    close: () => {
      cancelAnimationFrame(due);
      controls.dispose();
      renderer.dispose();
    },
  };
}

/**
 * Every member with its real section; what is too thin for one as a line; the weakest link in plain ink, in
 * the accent if it falls short.
 */
function members({ solid, weak, short, lit }: Showing, ink: (name: string) => string): Group {
  const group = new Group();
  const colour = (member: string, stuff: string) =>
    weak.has(member) && short
      ? ink("--weak")
      : weak.has(member) || lit.has(member)
        ? ink("--ink")
        : ink({ wood: "--wood", cane: "--cane", twine: "--cane", leaf: "--leaf2" }[stuff] ?? "--metal");
  const pieces: Record<"round" | "square", { at: Matrix4; colour: string }[]> = { round: [], square: [] };
  for (const bar of solid.bars) {
    // the soil that grips is shown where it is spoken of
    if (bar.stuff === "soil" && !weak.has(bar.member) && !lit.has(bar.member)) continue;
    for (const [i, end] of bar.points.entries()) {
      const start = bar.points[i - 1];
      if (!start) continue;
      const [a, b] = [put(start), put(end)];
      const along = b.clone().sub(a);
      const long = along.length();
      if (long < 1e-4) continue;
      const turned = new Quaternion().setFromUnitVectors(UP, along.clone().divideScalar(long));
      pieces[bar.section].push({
        at: new Matrix4().compose(
          a.add(b).multiplyScalar(0.5),
          turned,
          new Vector3(bar.wide, long, bar.deep),
        ),
        colour: colour(bar.member, bar.stuff),
      });
    }
  }
  for (const section of ["round", "square"] as const) {
    const found = pieces[section];
    if (!found.length) continue;
    const shape = section === "round" ? new CylinderGeometry(0.5, 0.5, 1, 10) : new BoxGeometry(1, 1, 1);
    group.add(instances(shape, found));
  }
  const strands = new Map<string, number[]>();
  for (const strand of solid.strands) {
    const key = colour(strand.member, strand.stuff);
    const places = strands.get(key) ?? [];
    for (const line of strand.lines)
      for (const [i, end] of line.entries()) {
        const start = line[i - 1];
        if (start) places.push(...put(start).toArray(), ...put(end).toArray());
      }
    strands.set(key, places);
  }
  for (const [key, places] of strands) {
    const shape = new BufferGeometry().setAttribute("position", new Float32BufferAttribute(places, 3));
    const lines = new LineSegments(shape, new LineBasicMaterial({ color: new Color(key) }));
    lines.castShadow = true;
    group.add(lines);
  }
  return group;
}

function instances(shape: BufferGeometry, found: readonly { at: Matrix4; colour: string }[]): InstancedMesh {
  const mesh = new InstancedMesh(shape, new MeshLambertMaterial({ side: DoubleSide }), found.length);
  for (const [i, each] of found.entries()) {
    mesh.setMatrixAt(i, each.at);
    mesh.setColorAt(i, new Color(each.colour));
  }
  mesh.castShadow = true;
  mesh.receiveShadow = true;
  return mesh;
}

/** Stems along their way as far as they have grown, leaves round them, fruit among the leaves. */
function plants({ solid, foliage, week }: Showing, ink: (name: string) => string): Group {
  const group = new Group();
  const stems: number[] = [];
  const leaves: { at: Matrix4; colour: string }[] = [];
  const fruits: { at: Matrix4; colour: string }[] = [];
  const share = Math.min(1, MOST_LEAVES / Math.max(solid.climbers.length * LEAVES, 1));
  const inks = [ink("--leaf"), ink("--leaf2")];
  for (const [n, climber] of solid.climbers.entries()) {
    const course = foliage[climber.planting];
    if (!course) continue;
    const grown = course.top[week] ?? 0;
    const cover = course.cover[week] ?? 0;
    const way = walked(climber.way, grown);
    for (const [i, end] of way.entries()) {
      const start = way[i - 1];
      if (start) stems.push(...put(start).toArray(), ...put(end).toArray());
    }
    const count = Math.round(LEAVES * share * Math.min(grown / 1.2, 1.6) * (0.35 + 0.65 * cover));
    const spread = course.depth * 0.45;
    for (let k = 0; k < count; k++) {
      const seed = n * 61 + k;
      const at = put(
        along(
          way,
          course.bottom / Math.max(grown, 0.01) + (1 - course.bottom / Math.max(grown, 0.01)) * chance(seed),
        ),
      );
      at.add(
        new Vector3(
          (chance(seed + 0.3) - 0.5) * 2 * spread,
          (chance(seed + 0.5) - 0.5) * 0.12,
          (chance(seed + 0.7) - 0.5) * 2 * spread,
        ),
      );
      if (at.y < 0.02) at.y = 0.02 + 0.05 * chance(seed + 0.9);
      const turned = new Quaternion().setFromAxisAngle(
        new Vector3(chance(seed + 1) - 0.5, chance(seed + 2), chance(seed + 3) - 0.5).normalize(),
        chance(seed + 4) * 6.28,
      );
      const size = 0.07 + 0.06 * chance(seed + 5);
      leaves.push({
        at: new Matrix4().compose(at, turned, new Vector3(size, size * 1.35, 1)),
        colour: inks[k % 2] ?? "",
      });
    }
    const hung = course.fruit_kg[week] ?? 0;
    const many = Math.min(Math.round(hung / Math.max(0.6 * course.fruit_size ** 3 * 900, 0.01)), 9);
    for (let k = 0; k < many; k++) {
      const seed = n * 37 + k * 7 + 0.5;
      const at = put(along(way, 0.25 + 0.65 * chance(seed)));
      at.add(new Vector3((chance(seed + 1) - 0.5) * spread, 0, (chance(seed + 2) - 0.5) * spread * 1.6));
      const size = Math.max(course.fruit_size, 0.015);
      fruits.push({
        at: new Matrix4().compose(at, new Quaternion(), new Vector3(size, size, size)),
        colour: ink("--fruit"),
      });
    }
  }
  if (stems.length)
    group.add(
      new LineSegments(
        new BufferGeometry().setAttribute("position", new Float32BufferAttribute(stems, 3)),
        new LineBasicMaterial({ color: new Color(ink("--leaf2")) }),
      ),
    );
  if (leaves.length) group.add(instances(new CircleGeometry(0.5, leaves.length > 10 * MANY ? 4 : 6), leaves));
  if (fruits.length) group.add(instances(new IcosahedronGeometry(0.5, fruits.length > MANY ? 0 : 2), fruits));
  return group;
}

/** A way as far as a plant of some height has come along it. */
function walked(way: readonly Place[], grown: number): Place[] {
  const found: Place[] = [];
  let left = grown;
  for (const [i, end] of way.entries()) {
    const start = way[i - 1];
    if (!start) {
      found.push(end);
      continue;
    }
    const long = Math.hypot(end[0] - start[0], end[1] - start[1], end[2] - start[2]);
    const share = long > 0 ? Math.min(left / long, 1) : 0;
    found.push([
      start[0] + share * (end[0] - start[0]),
      start[1] + share * (end[1] - start[1]),
      start[2] + share * (end[2] - start[2]),
    ]);
    left -= long;
    if (left <= 0) break;
  }
  return found;
}

/** The place at a share of the way. */
function along(way: readonly Place[], share: number): Place {
  const longs = way.map((end, i) =>
    i && way[i - 1] ? Math.hypot(...end.map((v, k) => v - (way[i - 1]?.[k] ?? 0))) : 0,
  );
  let left = Math.min(Math.max(share, 0), 1) * longs.reduce((a, b) => a + b, 0);
  for (const [i, long] of longs.entries()) {
    const [start, end] = [way[i - 1], way[i]];
    if (!start || !end || left > long) {
      left -= long;
      continue;
    }
    const part = long > 0 ? left / long : 0;
    return [
      start[0] + part * (end[0] - start[0]),
      start[1] + part * (end[1] - start[1]),
      start[2] + part * (end[2] - start[2]),
    ];
  }
  return way[way.length - 1] ?? [0, 0, 0];
}

/** The bed in two halves, of which the one behind is shown, so that what stands in the soil is seen. */
function soil({ ground }: Solid, ink: (name: string) => string): { near: Group; far: Group; middle: number } {
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
function floor(reach: number): Mesh {
  const mesh = new Mesh(new PlaneGeometry(reach * 9, reach * 9), new ShadowMaterial({ opacity: 0.22 }));
  mesh.rotation.x = -Math.PI / 2;
  mesh.position.y = -0.001;
  mesh.receiveShadow = true;
  return mesh;
}

/** Somebody standing beside it, in one ink, for its size. */
function person({ solid, person: tall }: Showing, ink: (name: string) => string): Group {
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
