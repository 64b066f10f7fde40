import type { Point, View } from "../api/types";

/** From mm, y up, to pixels, y down. The only arithmetic on places in the browser. */
export type Camera = { scale: number; x: number; y: number };
export type Pad = { left: number; right: number; top: number; bottom: number };
export type Room = { width: number; height: number; pad: Pad };

/** How far apart dimension lines stand, in pixels. */
export const LANE = 30;

/** Lowest left and highest right corner of everything drawn. */
function bounds(view: View): [Point, Point] {
  const points = view.shapes.flatMap((s) => s.points as Point[]);
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  return [
    [Math.min(...xs), Math.min(...ys)],
    [Math.max(...xs), Math.max(...ys)],
  ];
}

export function fit(view: View, room: Room): Camera {
  const [low, high] = bounds(view);
  const inside = [room.width - room.pad.left - room.pad.right, room.height - room.pad.top - room.pad.bottom];
  const scale = Math.max(
    0.001,
    Math.min(
      (inside[0] ?? 1) / Math.max(1, high[0] - low[0]),
      (inside[1] ?? 1) / Math.max(1, high[1] - low[1]),
    ),
  );
  const middle: Point = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
  return {
    scale,
    x: room.pad.left + (inside[0] ?? 0) / 2 - middle[0] * scale,
    y: room.pad.top + (inside[1] ?? 0) / 2 + middle[1] * scale,
  };
}

export const toScreen = (c: Camera, p: Point): Point => [c.x + p[0] * c.scale, c.y - p[1] * c.scale];
export const toPaper = (c: Camera, p: Point): Point => [(p[0] - c.x) / c.scale, (c.y - p[1]) / c.scale];
export const path = (points: Point[]): string =>
  points.map((p) => `${p[0].toFixed(2)},${p[1].toFixed(2)}`).join(" ");
export const mid = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
export const away = (p: Point, direction: Point, by: number): Point => [
  p[0] + direction[0] * by,
  p[1] - direction[1] * by,
];
