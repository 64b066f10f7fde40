import type { Point, Reading } from "../api/types";
import { type Camera, toScreen } from "../drawing/camera";

const WIDE = 150;
const HIGH = 34;
const GAP = 6;
const ALONG = [0.3, 0.7, 0.5, 0.4, 0.6, 0.18, 0.82];
const ASIDE: Point[] = [
  [0, 0],
  [0, -34],
  [0, 34],
  [-80, 0],
  [80, 0],
  [-80, -30],
  [80, -30],
  [-80, 30],
  [80, 30],
];

/** Where the fields of readings have room on a drawing: on their line, or beside their place. Those without room are left out. */
export function placesFor(
  readings: Reading[],
  camera: Camera,
  width: number,
  height: number,
): Map<string, Point> {
  const found = new Map<string, Point>();
  const taken: Point[] = [];
  const free = ([x, y]: Point) =>
    x > WIDE / 2 &&
    x < width - WIDE / 2 &&
    y > HIGH / 2 &&
    y < height - HIGH / 2 &&
    taken.every(([u, v]) => Math.abs(u - x) > WIDE + GAP || Math.abs(v - y) > HIGH + GAP);
  for (const reading of readings) {
    const a = toScreen(camera, reading.a as Point);
    const b = toScreen(camera, reading.b as Point);
    const dot = Math.hypot(b[0] - a[0], b[1] - a[1]) < 4;
    const tries: Point[] = dot
      ? ASIDE.map(([x, y]) => [a[0] + x, a[1] + y])
      : ALONG.map((t) => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]);
    const place = tries.find(free);
    if (place) {
      found.set(reading.key, place);
      taken.push(place);
    }
  }
  return found;
}
