import type { Dimension, Point } from "../api/types";
import { away, type Camera, LANE, mid, toScreen } from "./camera";

const ARC = 34;

/** Where a dimension's line runs on the screen and where its figure stands. */
export type Placed = {
  dimension: Dimension;
  a: Point;
  b: Point;
  from: [Point, Point];
  label: Point;
  angle?: Point;
};

export function place(camera: Camera, dimension: Dimension): Placed {
  if (dimension.about) return placeAngle(camera, dimension, dimension.about as Point);
  const from: [Point, Point] = [
    toScreen(camera, dimension.a as Point),
    toScreen(camera, dimension.b as Point),
  ];
  const off = dimension.lane * LANE;
  const direction = dimension.away as Point;
  const a = away(from[0], direction, off);
  const b = away(from[1], direction, off);
  const label = mid(a, b);
  const narrow = Math.hypot(b[0] - a[0], b[1] - a[1]) < 60 && dimension.lane > 0;
  return { dimension, a, b, from, label: narrow ? away(label, direction, 20) : label };
}

function placeAngle(camera: Camera, dimension: Dimension, about: Point): Placed {
  const at = toScreen(camera, about);
  const radius = ARC + dimension.lane * 40;
  const a = away(at, dimension.a as Point, radius);
  const b = away(at, dimension.b as Point, radius);
  const sum: Point = [dimension.a[0] + dimension.b[0], dimension.a[1] + dimension.b[1]];
  const length = Math.hypot(sum[0], sum[1]) || 1;
  const inside = away(at, [sum[0] / length, sum[1] / length], radius + 24);
  const label = dimension.at ? toScreen(camera, dimension.at as Point) : inside;
  return { dimension, a, b, from: [at, at], label, angle: [radius, radius] };
}

/** Half of what a figure takes, in pixels: lengths are longer than angles. */
const HALF = { length: 46, angle: 32, height: 18 };

/** Figures that would lie on one another are moved until they do not: a length's along its line, an angle's further out. */
export function apart(placed: Placed[]): Placed[] {
  const kept: Placed[] = [];
  for (const each of [...placed.filter((p) => !p.angle), ...placed.filter((p) => p.angle)]) {
    const free = elsewhere(each).find((label) => !kept.some((other) => overlap({ ...each, label }, other)));
    kept.push({ ...each, label: free ?? each.label });
  }
  return placed.map((p) => kept.find((k) => k.dimension === p.dimension) ?? p); // tabbed through in the order of the view
}

/** Where a figure may stand, the best place first. */
function elsewhere({ a, b, from, label, angle }: Placed): Point[] {
  if (angle) {
    const way: Point = [label[0] - from[0][0], label[1] - from[0][1]];
    const length = Math.hypot(way[0], way[1]) || 1;
    return [0, 18, 36, 54, 72].map((by) => away(label, [way[0] / length, -way[1] / length], by));
  }
  const along: Point = [b[0] - a[0], b[1] - a[1]];
  return [0, 0.15, -0.15, 0.3, -0.3].map((by) => [label[0] + by * along[0], label[1] + by * along[1]]);
}

const overlap = (p: Placed, q: Placed) =>
  Math.abs(p.label[0] - q.label[0]) < half(p) + half(q) &&
  Math.abs(p.label[1] - q.label[1]) < 2 * HALF.height;
const half = (p: Placed) => (p.angle ? HALF.angle : HALF.length);

/** The line with its ticks and the thin lines that carry it off the thing, or the arc of an angle. */
export function DimensionLine({ placed }: { placed: Placed }) {
  const { dimension, a, b, from, angle } = placed;
  const look = `dimension ${dimension.standing}`;
  if (angle) {
    return <path className={look} d={`M ${a[0]} ${a[1]} A ${angle[0]} ${angle[0]} 0 0 0 ${b[0]} ${b[1]}`} />;
  }
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const along: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const tick = (p: Point) => (
    <line
      x1={p[0] - 5 * (along[0] + along[1])}
      y1={p[1] - 5 * (along[1] - along[0])}
      x2={p[0] + 5 * (along[0] + along[1])}
      y2={p[1] + 5 * (along[1] - along[0])}
    />
  );
  return (
    <g className={look}>
      {dimension.lane > 0 && (
        <line x1={from[0][0]} y1={from[0][1]} x2={a[0]} y2={a[1]} strokeDasharray="2 3" />
      )}
      {dimension.lane > 0 && (
        <line x1={from[1][0]} y1={from[1][1]} x2={b[0]} y2={b[1]} strokeDasharray="2 3" />
      )}
      <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} />
      {tick(a)}
      {tick(b)}
    </g>
  );
}
