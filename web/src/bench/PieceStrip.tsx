import { Toolbar } from "radix-ui";
import { useEffect, useRef } from "react";
import type { Bench, BenchPiece, BenchTask } from "../api/types";
import { isWrong, type State } from "./fold";

type Props = {
  bench: Bench;
  here: BenchTask;
  states: (key: string) => State;
  onGo: (key: string) => void;
};
type Word = "to cut" | "begun" | "first end" | "cut" | "measured" | "wrong" | "kept as it is";

/** How far a piece is: the share of its work that is done, and in a word. */
export function pieceState(piece: BenchPiece, tasks: Map<string, BenchTask>, states: Props["states"]) {
  const all = piece.tasks.map((key) => states(key));
  const done = all.filter((state) => state.cut).length;
  const changed = piece.tasks.some((key) => isChanged(states(key), tasks.get(key)));
  const firstEnd = piece.tasks.some((key) => tasks.get(key)?.work === "first_end" && states(key).cut);
  const measured =
    piece.measured.length > 0 && piece.measured.every((key) => "length" in states(key).readings);
  const wrong = all.filter(isWrong);
  const kept = wrong.every((state) => state.wrong?.body.way === "keep");
  const word: Word = wrong.length
    ? kept
      ? "kept as it is"
      : "wrong"
    : done === 0
      ? "to cut"
      : done < all.length
        ? firstEnd
          ? "first end"
          : "begun"
        : measured
          ? "measured"
          : "cut";
  return { share: all.length ? done / all.length : 0, word, changed };
}

/** Whether something was done to a piece of another size than it has now. */
export const isChanged = (state: State, task: BenchTask | undefined): boolean =>
  state.cut !== null && !!state.fingerprint && !!task?.fingerprint && state.fingerprint !== task.fingerprint;

/** Every piece as a small shape, filled as far as it is made; touched, it shows what is next with it. */
export function PieceStrip({ bench, here, states, onGo }: Props) {
  const tasks = new Map(bench.tasks.map((task) => [task.key, task]));
  const current = useRef<HTMLButtonElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another piece scrolls into sight
  useEffect(() => {
    current.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [here.piece]);
  return (
    <Toolbar.Root
      role="group"
      aria-orientation={undefined}
      aria-label="Pieces"
      className="piece-strip flex shrink-0 overflow-x-auto border-b border-line bg-paper"
    >
      {bench.pieces.map((piece) => {
        const { share, word, changed } = pieceState(piece, tasks, states);
        const on = piece.key === here.piece;
        const next = piece.tasks.find((key) => !states(key).cut) ?? piece.tasks[piece.tasks.length - 1];
        return (
          <Toolbar.Button
            key={piece.key}
            ref={on ? current : undefined}
            className="piece-chip"
            data-state-word={word}
            aria-current={on ? "step" : undefined}
            aria-label={`${piece.tag}, ${piece.name}: ${word}${changed ? ", made to an earlier size" : ""}`}
            onClick={() => next && onGo(next)}
          >
            <PieceShape piece={piece} share={share} word={word} />
            <span>
              {piece.tag}
              {changed ? "*" : ""}
            </span>
          </Toolbar.Button>
        );
      })}
    </Toolbar.Root>
  );
}

const WIDE = 44;
const HIGH = 20;

function PieceShape({ piece, share, word }: { piece: BenchPiece; share: number; word: Word }) {
  const xs = piece.outline.map((p) => p[0] as number);
  const ys = piece.outline.map((p) => p[1] as number);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  // Long thin boards are drawn thicker than they are: the shape is a sign, not to scale.
  const at = (p: number[]) =>
    `${2 + (((p[0] ?? 0) - x0) / (x1 - x0)) * WIDE},${2 + (1 - ((p[1] ?? 0) - y0) / (y1 - y0)) * HIGH}`;
  const points = piece.outline.map(at).join(" ");
  const clip = `clip-${piece.key.replace(/\W/g, "-")}`;
  return (
    <svg width={WIDE + 4} height={HIGH + 4} aria-hidden="true">
      <clipPath id={clip}>
        <rect x="0" y="0" width={2 + WIDE * share + (share === 1 ? 2 : 0)} height={HIGH + 4} />
      </clipPath>
      <polygon points={points} className="piece-made" clipPath={`url(#${clip})`} />
      <polygon points={points} className="piece-line" />
      {word === "measured" && <path d="M17 12l5 6 10-12" className="piece-sign" />}
      {(word === "wrong" || word === "kept as it is") && (
        <path d="M18 5l14 14M32 5l-14 14" className="piece-wrong" />
      )}
    </svg>
  );
}
