import type { Dimension, Point } from "../api/types";
import { type Block, blockOf, FIGURE_HEIGHT, overlap, type Taken } from "./blocks";
import { away, type Camera, LANE, mid, toScreen } from "./camera";

const ARC = 34;

/** Where a dimension's line runs on the screen and where its figure stands. */
export type Placed = {
  dimension: Dimension;
  a: Point;
  b: Point;
  from: [Point, Point];
  label: Point;
  block: Block;
  angle?: Point;
};

/** Every dimension of a view. At the side of a thing a line stands off so far that its figure does not lie on it; above and below one
 * line keeps clear of the words of those nearer to the thing. */
export function placed(camera: Camera, dimensions: Dimension[], letters: number): Placed[] {
  const blocks = new Map(dimensions.map((d) => [d, blockOf(camera, d, letters)]));
  const found = new Map<Dimension, Placed>();
  for (const dimension of [...dimensions].sort((a, b) => a.lane - b.lane)) {
    const block = blocks.get(dimension) as Block;
    if (dimension.about) {
      found.set(dimension, placeAngle(camera, dimension, dimension.about as Point, block));
      continue;
    }
    const [dx, dy] = dimension.away as Point;
    const off = dimension.lane * LANE;
    let more = 0;
    if (dimension.lane >= 1 && Math.abs(dx) > Math.abs(dy)) more = Math.max(0, block.halfWidth + 6 - LANE);
    else if (dimension.lane >= 1) {
      more = spare(block) / 2;
      const out = outward(placeLength(camera, dimension, block, off), dy);
      for (const other of found.values()) {
        const { lane, away: side } = other.dimension;
        const nearer = lane >= 1 && lane < dimension.lane && side[1] * dy > 0.5;
        if (nearer)
          more = Math.max(more, outward(other, dy) + other.block.halfHeight + block.halfHeight + 3 - out);
      }
    }
    found.set(dimension, placeLength(camera, dimension, block, off + more));
  }
  return dimensions.map((d) => found.get(d) as Placed);
}

/** How far out a line that lies above or below a thing is, in pixels. */
const outward = (line: Placed, dy: number) => -Math.sign(dy) * ((line.a[1] + line.b[1]) / 2);

/** How much higher a figure with its words is than the figure alone. */
const spare = (block: Block) => 2 * block.halfHeight - FIGURE_HEIGHT;

function placeLength(camera: Camera, dimension: Dimension, block: Block, off: number): Placed {
  const from: [Point, Point] = [
    toScreen(camera, dimension.a as Point),
    toScreen(camera, dimension.b as Point),
  ];
  const direction = dimension.away as Point;
  const a = away(from[0], direction, off);
  const b = away(from[1], direction, off);
  const label = mid(a, b);
  // At a side the line stands off so far that its figure has room on it.
  const aside = Math.abs(direction[0]) > Math.abs(direction[1]) && dimension.lane >= 1;
  const narrow = !aside && Math.hypot(b[0] - a[0], b[1] - a[1]) < 2 * block.halfWidth && dimension.lane > 0;
  // Off its line: by half of what it takes in that direction, so that the line stays to be seen.
  const offLine = Math.abs(direction[0]) * block.halfWidth + Math.abs(direction[1]) * block.halfHeight;
  return { dimension, a, b, from, block, label: narrow ? away(label, direction, offLine) : label };
}

function placeAngle(camera: Camera, dimension: Dimension, about: Point, block: Block): Placed {
  const at = toScreen(camera, about);
  const radius = ARC + dimension.lane * 40;
  const a = away(at, dimension.a as Point, radius);
  const b = away(at, dimension.b as Point, radius);
  const sum: Point = [dimension.a[0] + dimension.b[0], dimension.a[1] + dimension.b[1]];
  const length = Math.hypot(sum[0], sum[1]) || 1;
  const inside = away(at, [sum[0] / length, sum[1] / length], radius + 24);
  const label = dimension.at ? toScreen(camera, dimension.at as Point) : inside;
  return { dimension, a, b, from: [at, at], label, block, angle: [radius, radius] };
}

/** Figures that would lie on one another or on a letter are moved until they do not: a length's along its line, an angle's further
 * out. */
export function apart(placed: Placed[], taken: Taken[]): Placed[] {
  const kept: Placed[] = [];
  for (const each of [...placed.filter((p) => !p.angle), ...placed.filter((p) => p.angle)]) {
    const full = [...taken, ...kept.map(room)];
    const free = elsewhere(each).find(
      (label) => !full.some((other) => overlap(room({ ...each, label }), other)),
    );
    kept.push({ ...each, label: free ?? each.label });
  }
  return placed.map((p) => kept.find((k) => k.dimension === p.dimension) ?? p); // tabbed through in the order of the view
}

const room = ({ label, block }: Placed): Taken => ({ at: label, ...block });

/** How far off its line a figure may stand, where there is no room on it. */
const ASIDE = [0, 26, -26, 44, -44];

/** Where a figure may stand, the best place first. */
function elsewhere({ a, b, from, label, angle }: Placed): Point[] {
  if (angle) {
    const way: Point = [label[0] - from[0][0], label[1] - from[0][1]];
    const length = Math.hypot(way[0], way[1]) || 1;
    const [ox, oy]: Point = [way[0] / length, way[1] / length];
    return [0, 30, -30, 60, -60].flatMap((aside) =>
      [0, 18, 36, 54, 72, 90, 108].map(
        (by): Point => [label[0] + by * ox - aside * oy, label[1] + by * oy + aside * ox],
      ),
    );
  }
  const along: Point = [b[0] - a[0], b[1] - a[1]];
  const steps = [0, 0.1, -0.1, 0.2, -0.2, 0.3, -0.3, 0.4, -0.4, 0.5, -0.5];
  const length = Math.hypot(along[0], along[1]) || 1;
  const across: Point = [-along[1] / length, along[0] / length];
  return ASIDE.flatMap((aside) =>
    steps.map(
      (by): Point => [
        label[0] + by * along[0] + aside * across[0],
        label[1] + by * along[1] + aside * across[1],
      ],
    ),
  );
}

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
