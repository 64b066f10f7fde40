import {
  AmbientLight,
  Box3,
  BufferGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Float32BufferAttribute,
  Group,
  LineBasicMaterial,
  LineLoop,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Spherical,
  Vector2,
  Vector3,
  WebGLRenderer,
} from "three";
import type { Solids } from "../api/types";

type Look = { turn: number; rise: number; distance: number };
const FRONT: Look = { turn: 0.5, rise: 1.15, distance: 3.45 };
const MOST_APART = 0.6;
const CREASE_DEG = 1;
/** Frames further apart than this are slow, than that they are no movement; and how coarse slow ones become. */
const SLOW_MS = 36;
const RESTING_MS = 150;
const COARSE = 0.6;

/** The colour that a token has now, in the scheme that is on. */
function token(host: HTMLElement, name: string): Color {
  const probe = document.createElement("span");
  probe.style.color = `var(--color-${name})`;
  host.append(probe);
  const color = new Color(getComputedStyle(probe).color);
  probe.remove();
  return color;
}

/** The parts in space: turned, pulled apart and touched; drawn only when something has changed. */
export class SolidScene {
  private renderer: WebGLRenderer;
  private scene = new Scene();
  private camera = new PerspectiveCamera(35, 1, 0.01, 100);
  private parts = new Map<string, { group: Group; push: Vector3; mesh: Mesh[]; found: boolean }>();
  private joints = new Group();
  private look: Look = { ...FRONT };
  private apart = 0;
  private touched: string[] = [];
  private pending = 0;
  private settling = 0;
  private drawn = 0;
  private weak = false;
  private turned = false;

  /** Throws where the browser has no WebGL. */
  constructor(
    private canvas: HTMLCanvasElement,
    private host: HTMLElement,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    const sun = new DirectionalLight(0xffffff, 2.2);
    sun.position.set(0.6, 1.2, 2);
    this.scene.add(new AmbientLight(0xffffff, 1.5), sun, this.joints);
  }

  /** Other solids in place of those shown; the view keeps its place. */
  show(solids: Solids): void {
    for (const part of this.parts.values()) this.scene.remove(part.group);
    this.parts.clear();
    this.joints.clear();
    // The scene's y is up and its z looks at the reader, as in a thing drawn flat; a standing thing is tipped up.
    const tipped = (p: [number, number, number]) =>
      solids.stands ? new Vector3(p[0], p[2], -p[1]) : new Vector3(...p);
    const all = solids.solids.flatMap((s) => s.pieces.flatMap((p) => p.points.map(tipped)));
    const middle = new Box3().setFromPoints(all).getCenter(new Vector3());
    const reach = Math.max(...all.map((p) => p.distanceTo(middle)));
    const placed = (p: [number, number, number]) => tipped(p).sub(middle).divideScalar(reach);
    for (const solid of solids.solids) {
      const group = new Group();
      // What is there already is no part to be touched.
      const part = solid.found ? null : solid.id;
      const mesh = solid.pieces.map((piece) => this.piece(piece, placed, part));
      for (const m of mesh) {
        const edges = new LineSegments(new EdgesGeometry(m.geometry, CREASE_DEG), new LineBasicMaterial());
        group.add(m, edges);
      }
      this.scene.add(group);
      this.parts.set(solid.id, { group, push: tipped(solid.push), mesh, found: solid.found });
    }
    for (const joint of solids.joints) {
      for (const outline of joint.outlines) {
        const loop = new LineLoop(
          new BufferGeometry().setFromPoints(outline.map(placed)),
          new LineBasicMaterial(),
        );
        loop.userData.closes = joint.closes;
        loop.renderOrder = joint.closes ? 0 : 2;
        loop.material.depthTest = joint.closes;
        this.joints.add(loop);
      }
    }
    if (!this.turned) this.look.turn = solids.turn;
    this.recolour();
    this.pull(this.apart);
  }

  private piece(
    piece: Solids["solids"][number]["pieces"][number],
    placed: (p: [number, number, number]) => Vector3,
    part: string | null,
  ): Mesh {
    const points = piece.points.map(placed);
    const corners = piece.facets.flatMap((loop) =>
      loop
        .slice(2)
        .flatMap((_, i) => [loop[0], loop[i + 1], loop[i + 2]].map((k) => points[k as number] as Vector3)),
    );
    const geometry = new BufferGeometry();
    geometry.setAttribute(
      "position",
      new Float32BufferAttribute(
        corners.flatMap((c) => c.toArray()),
        3,
      ),
    );
    geometry.computeVertexNormals();
    const mesh = new Mesh(geometry, new MeshLambertMaterial({ polygonOffset: true, polygonOffsetFactor: 1 }));
    mesh.userData.part = part;
    return mesh;
  }

  /** Colours anew: after a touch, or when light turns to dark. */
  recolour(): void {
    const [wood, touched, ink, there] = ["wood", "touched", "ink", "line"].map((name) =>
      token(this.host, name),
    ) as [Color, Color, Color, Color];
    const [mating, cut] = ["mating", "cut"].map((name) => token(this.host, name)) as [Color, Color];
    for (const [id, part] of this.parts) {
      for (const mesh of part.mesh)
        (mesh.material as MeshLambertMaterial).color = this.touched.includes(id)
          ? touched
          : part.found
            ? there
            : wood;
      for (const child of part.group.children) {
        if (child instanceof LineSegments) (child.material as LineBasicMaterial).color = ink;
      }
    }
    for (const child of this.joints.children) {
      ((child as LineLoop).material as LineBasicMaterial).color = child.userData.closes ? mating : cut;
    }
    this.draw();
  }

  touch(parts: string[]): void {
    this.touched = parts;
    this.recolour();
  }

  /** Pull the parts apart along the ways they came together: 0 together, 1 all the way. */
  pull(apart: number): void {
    this.apart = apart;
    for (const { group, push } of this.parts.values())
      group.position.copy(push).multiplyScalar(apart * MOST_APART);
    this.joints.visible = apart < 0.01;
    this.draw();
  }

  turn(right: number, down: number): void {
    this.turned = true;
    this.look.turn -= right;
    this.look.rise = Math.max(0.05, Math.min(Math.PI - 0.05, this.look.rise - down));
    this.draw();
  }

  closer(by: number): void {
    this.look.distance = Math.max(1.2, Math.min(8, this.look.distance * by));
    this.draw();
  }

  fromTheFront(): void {
    this.turned = true;
    this.look = { turn: 0, rise: Math.PI / 2, distance: FRONT.distance };
    this.draw();
  }

  /** The part under a place on the canvas, in pixels from its corner. */
  partAt(x: number, y: number): string | null {
    const ray = new Raycaster();
    const { clientWidth, clientHeight } = this.canvas;
    ray.setFromCamera(new Vector2((x / clientWidth) * 2 - 1, 1 - (y / clientHeight) * 2), this.camera);
    const meshes = [...this.parts.values()].flatMap((p) => p.mesh);
    return ray.intersectObjects(meshes)[0]?.object.userData.part ?? null;
  }

  draw(): void {
    cancelAnimationFrame(this.pending);
    this.pending = requestAnimationFrame(() => {
      const { clientWidth, clientHeight } = this.host;
      if (!clientWidth || !clientHeight) return;
      this.paceYourself(performance.now());
      this.renderer.setSize(clientWidth, clientHeight, false);
      this.camera.aspect = clientWidth / clientHeight;
      // Far enough to see all of it, pulled apart and on a tall screen too.
      const near = this.look.distance * Math.max(1, 1 / this.camera.aspect) * (1 + this.apart * MOST_APART);
      this.camera.position.setFromSpherical(new Spherical(near, this.look.rise, this.look.turn));
      this.camera.lookAt(0, 0, 0);
      this.camera.updateProjectionMatrix();
      this.renderer.render(this.scene, this.camera);
    });
  }

  /** Where frames follow each other too slowly (no graphics card), they are coarse while it moves and fine when it rests. */
  private paceYourself(now: number): void {
    const gap = now - this.drawn;
    const moving = gap < RESTING_MS;
    if (moving && gap > SLOW_MS) this.weak = true;
    this.drawn = now;
    const fine = Math.min(window.devicePixelRatio, 2);
    this.renderer.setPixelRatio(this.weak && moving ? COARSE * fine : fine);
    window.clearTimeout(this.settling);
    if (this.weak && moving) this.settling = window.setTimeout(() => this.draw(), 2 * RESTING_MS);
  }

  close(): void {
    cancelAnimationFrame(this.pending);
    window.clearTimeout(this.settling);
    this.renderer.dispose();
  }
}
