import {
  AmbientLight,
  BufferGeometry,
  DirectionalLight,
  Group,
  HemisphereLight,
  LineSegments,
  Mesh,
  PCFShadowMap,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from "three";
import { OrbitControls } from "three/addons/controls/OrbitControls.js";

import { members } from "./members";
import { plants } from "./plants";
import { put, type Showing } from "./showing";
import { floor, person, soil } from "./surroundings";

/** A picture that can be turned: show something in it, turn it by keys, take it down. */
export interface Stage {
  show: (what: Showing) => void;
  turn: (sideways: number, upward: number, nearer: number) => void;
  size: (width: number, height: number) => void;
  close: () => void;
}

const SLOW = 60; // for a frame of a turn to be drawn, past which the next are coarser [ms]

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
