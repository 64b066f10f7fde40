import { type KeyboardEvent, useRef, useState } from "react";
import type { Point, Shape } from "../api/types";
import { type Camera, path, toScreen } from "./camera";

/** A board, what it is called, and what of it is seen. */
type Target = { board: string; name: string; outlines: string[] };

/** Every named board that is seen, in the order of the names. */
export function targetsOf(shapes: Shape[], names: Map<string, string>, camera: Camera): Target[] {
  const seen = new Map<string, string[]>();
  for (const shape of shapes) {
    if (shape.role !== "wood" || !shape.part || !names.has(shape.part)) continue;
    const outline = path(shape.points.map((p) => toScreen(camera, p as Point)));
    seen.set(shape.part, [...(seen.get(shape.part) ?? []), outline]);
  }
  return [...names].flatMap(([board, name]) => {
    const outlines = seen.get(board);
    return outlines ? [{ board, name, outlines }] : [];
  });
}

const STEPS: Record<string, number> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

/** The boards of a drawing for the keyboard: one stop for the Tab key, from board to board by the arrow keys, Enter touches one. */
export function PartTargets({ targets, onTouch }: { targets: Target[]; onTouch: (part: string) => void }) {
  const [at, setAt] = useState(0);
  const group = useRef<SVGGElement>(null);
  const here = Math.min(at, targets.length - 1);
  const onKey = (event: KeyboardEvent<SVGElement>, target: Target) => {
    const step = STEPS[event.key];
    if (step) {
      const next = (here + step + targets.length) % targets.length;
      setAt(next);
      (group.current?.children[next] as SVGElement | undefined)?.focus();
    } else if (event.key === "Enter" || event.key === " ") onTouch(target.board);
    else return;
    event.preventDefault();
  };
  return (
    <g ref={group}>
      {targets.map((target, i) => (
        // biome-ignore lint/a11y/useSemanticElements: a board inside a drawing cannot be a button element
        <g
          key={target.board}
          role="button"
          className="part-target"
          tabIndex={i === here ? 0 : -1}
          aria-label={`${target.name} on the drawing`}
          onFocus={() => setAt(i)}
          onKeyDown={(event) => onKey(event, target)}
        >
          {target.outlines.map((outline) => (
            <polygon key={outline} points={outline} />
          ))}
        </g>
      ))}
    </g>
  );
}
