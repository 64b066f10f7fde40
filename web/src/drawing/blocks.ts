import type { Dimension, Mark, Point, View } from "../api/types";
import { type Camera, toScreen } from "./camera";

/** A figure and the words that say what it measures: how much room they take, half of it each way, in pixels. */
export type Block = { halfWidth: number; halfHeight: number; words: string[]; beside: boolean };
/** Room that is taken already. */
export type Taken = { at: Point; halfWidth: number; halfHeight: number };

const FIGURE_LETTER = 9.5;
const WORD_LETTER = 6.6;
export const FIGURE_HEIGHT = 31;
const WORD_HEIGHT = 16;
const LETTER = { halfWidth: 9, halfHeight: 9 };

/** Words stand beside the figure where its line is level and long enough to carry them, else in short lines under it. */
export function blockOf(camera: Camera, d: Dimension, letters: number): Block {
  const { whole, fraction = "", unit, hair } = d.figure;
  const figure =
    (whole.length + fraction.length * 0.8 + (unit?.length ?? 0) * 0.8 + (hair ? 1 : 0)) * FIGURE_LETTER + 20;
  // A corner says itself what its angle is.
  const words = letters > 0 && !(d.about && d.id.includes(":")) ? inside(d.label) : "";
  const bare = {
    halfWidth: Math.max(62, figure) / 2,
    halfHeight: FIGURE_HEIGHT / 2,
    words: [],
    beside: false,
  };
  if (!words) return bare;
  const [across, up] = [Math.abs(d.b[0] - d.a[0]), Math.abs(d.b[1] - d.a[1])];
  const wide = figure + words.length * WORD_LETTER + 8;
  if (!d.about && across * camera.scale > wide + 60 && up < across / 10) {
    return { halfWidth: wide / 2, halfHeight: FIGURE_HEIGHT / 2, words: [words], beside: true };
  }
  const lines = wrapped(words, letters);
  const long = Math.max(...lines.map((line) => line.length)) * WORD_LETTER + 10;
  return {
    halfWidth: Math.max(figure, long) / 2,
    halfHeight: (FIGURE_HEIGHT + lines.length * WORD_HEIGHT) / 2,
    words: lines,
    beside: false,
  };
}

/** As it stands within a sentence: `thickness`, but `A runs through`. */
const inside = (label: string) => label.replace(/^[A-Z](?=[a-z])/, (first) => first.toLowerCase());

function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && `${last} ${word}`.length <= letters)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

const CLEAR = 22;
const BESIDE: Point[] = [
  [0, 0],
  [CLEAR, 0],
  [-CLEAR, 0],
  [0, CLEAR],
  [0, -CLEAR],
];

/** The marks with every board's letter beside the rings: on its board still, where that has room for it. */
export function marksBeside(camera: Camera, view: View): Mark[] {
  const rings = view.grips.map((grip) => toScreen(camera, grip.at as Point));
  return view.marks.map((mark) => {
    if (!mark.text) return mark;
    const [x, y] = toScreen(camera, mark.at as Point);
    const clear = ([dx, dy]: Point) =>
      rings.every(([a, b]) => Math.hypot(x + dx - a, y + dy - b) > CLEAR - 2);
    if (clear([0, 0])) return mark;
    const at = ([dx, dy]: Point): Point => [
      (mark.at[0] as number) + dx / camera.scale,
      (mark.at[1] as number) - dy / camera.scale,
    ];
    const free = BESIDE.filter(clear).map(at);
    const own = view.shapes.filter((shape) => shape.role === "wood" && shape.part === mark.part);
    const on = free.find((point) => own.some((shape) => holds(shape.points as Point[], point)));
    return { ...mark, at: on ?? free[0] ?? mark.at };
  });
}

/** Whether a place lies within an outline. */
function holds(outline: Point[], [x, y]: Point): boolean {
  let inside = false;
  outline.forEach(([ax, ay], i) => {
    const [bx, by] = outline[(i + 1) % outline.length] as Point;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

/** Where the letters and names of boards stand. */
export function letters(camera: Camera, marks: Mark[]): Taken[] {
  return marks.flatMap((mark) =>
    mark.text
      ? [
          {
            at: toScreen(camera, mark.at as Point),
            halfWidth: LETTER.halfWidth + 4 * (mark.text.length - 1),
            halfHeight: LETTER.halfHeight,
          },
        ]
      : [],
  );
}

export const overlap = (a: Taken, b: Taken) =>
  Math.abs(a.at[0] - b.at[0]) < a.halfWidth + b.halfWidth &&
  Math.abs(a.at[1] - b.at[1]) < a.halfHeight + b.halfHeight;
