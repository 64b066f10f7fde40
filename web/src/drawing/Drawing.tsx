import { type ReactNode, useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Act, Problem, Shape, View } from "../api/types";
import { FigureField } from "../ui/FigureField";
import { FigureText } from "../ui/FigureText";
import { letters, marksBeside } from "./blocks";
import { type Camera, fit, type Pad } from "./camera";
import { apart, DimensionLine, placed } from "./dimensions";
import { GripRing } from "./GripRing";
import { PartTargets, targetsOf } from "./PartTargets";
import { framed } from "./room";
import { MarkDrawn, Patterns, ShapeDrawn } from "./Shapes";

type Props = {
  view: View;
  label: string;
  className?: string;
  pad?: Pad;
  extraRight?: number;
  touched?: string[];
  onTouch?: (part: string) => void;
  /** What the boards are called, by their keys: those can be touched by keyboard too. */
  names?: Map<string, string>;
  onAct?: (acts: Act[]) => Promise<Problem | null>;
  onLook?: (acts: Act[] | null) => Promise<Problem | null>;
  onProblem?: (problem: Problem | null) => void;
  step?: number;
  /** Where and how large it is drawn, where several drawings have one scale. */
  at?: Camera;
  /** What else is drawn on top, in place of the sizes and rings. */
  over?: (camera: Camera) => ReactNode;
  /** What else stands on it, as a page: fields at their places. */
  above?: (camera: Camera) => ReactNode;
  /** Where and how large it came to be drawn. */
  onCamera?: (camera: Camera, size: { width: number; height: number }) => void;
};

const BARE = { left: 8, right: 8, top: 8, bottom: 8 };
/** Below this width the words at a figure would hide the drawing; one beside it has few, in short lines. */
const ROOM_FOR_WORDS = 560;

/** Any view of any kind: to scale, its dimensions edited where they stand, its grips dragged. */
export function Drawing({
  view,
  label,
  className = "",
  pad,
  extraRight = 0,
  touched,
  onTouch,
  names,
  onAct,
  onLook,
  onProblem,
  step = 1,
  at,
  over,
  above,
  onCamera,
}: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [held, setHeld] = useState(false);
  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  const roomy = size.width > (view.short ? ROOM_FOR_WORDS : ROOM_FOR_WORDS / 2.5);
  const inALine = !roomy ? 0 : view.short ? 16 : 11;
  const fitted = useMemo(() => {
    if (at) return at;
    if (pad || view.dimensions.length === 0) return fit(view, { ...size, pad: pad ?? BARE });
    return framed(view, size, extraRight, inALine);
  }, [view, size, pad, extraRight, inALine, at]);
  // While a grip is held the drawing keeps its scale, or it would run away from under the finger.
  const frozen = useRef<Camera>(fitted);
  useEffect(() => {
    if (!held) frozen.current = fitted;
  }, [held, fitted]);
  const camera = held ? frozen.current : fitted;
  // biome-ignore lint/correctness/useExhaustiveDependencies: told anew where it is drawn otherwise, not when another function listens
  useEffect(() => {
    onCamera?.(camera, size);
  }, [camera, size]);
  const marks = useMemo(() => marksBeside(camera, view), [camera, view]);
  const sizes = apart(placed(camera, view.dimensions, inALine), letters(camera, marks));
  const base = useId();
  const editable = onAct && onLook;

  return (
    <div ref={holder} className={`drawing relative overflow-hidden ${className}`}>
      {size.width > 0 && (
        <>
          {/* biome-ignore lint/a11y/noSvgWithoutTitle: it is named by its label, or hidden where it only adorns */}
          <svg
            width={size.width}
            height={size.height}
            {...(label ? { role: "group", "aria-label": label } : { "aria-hidden": true })}
          >
            <Patterns base={base} shapes={view.shapes as Shape[]} touched={touched} />
            {view.shapes.map((shape, i) => (
              <ShapeDrawn
                // biome-ignore lint/suspicious/noArrayIndexKey: shapes have no name of their own and keep their order
                key={i}
                shape={shape}
                camera={camera}
                base={base}
                touched={touched}
                onTouch={onTouch}
              />
            ))}
            {!over && sizes.map((p) => <DimensionLine key={p.dimension.id} placed={p} />)}
            {marks.map((mark, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: marks have no name of their own and keep their order
              <MarkDrawn key={i} mark={mark} camera={camera} />
            ))}
            {over?.(camera)}
            {onTouch && names && (
              <PartTargets targets={targetsOf(view.shapes as Shape[], names, camera)} onTouch={onTouch} />
            )}
            {editable &&
              !over &&
              view.grips.map((grip) => (
                <GripRing
                  key={grip.id}
                  grip={grip}
                  camera={camera}
                  name={grip.name}
                  step={step}
                  reach={size.width < ROOM_FOR_WORDS ? 14 : 20}
                  onHold={setHeld}
                  onLook={onLook}
                  onAct={async (acts) => onProblem?.(await onAct(acts))}
                />
              ))}
          </svg>
          {above?.(camera)}
          {!over &&
            sizes.map(({ dimension, label: at, block }) => (
              <span
                key={dimension.id}
                className="figure-place absolute -translate-x-1/2 -translate-y-1/2"
                style={{
                  left: clamp(at[0], block.halfWidth, size.width - block.halfWidth),
                  top: clamp(at[1], block.halfHeight, size.height - block.halfHeight),
                }}
              >
                {editable && dimension.acts ? (
                  <FigureField
                    figure={dimension.figure}
                    label={dimension.name || dimension.label}
                    standing={dimension.standing}
                    acts={dimension.acts as Act}
                    canFree={dimension.can_free}
                    words={block.beside ? block.words[0] : undefined}
                    onAct={onAct}
                    onLook={onLook}
                  />
                ) : (
                  <>
                    <FigureText figure={dimension.figure} className="px-1" />
                    {block.beside && <span className="text-[15px]">{block.words[0]}</span>}
                  </>
                )}
                {!block.beside && block.words.length > 0 && (
                  <span className="words-under" aria-hidden="true">
                    {block.words.map((line) => (
                      <span key={line} className="block">
                        {line}
                      </span>
                    ))}
                  </span>
                )}
              </span>
            ))}
        </>
      )}
    </div>
  );
}

const clamp = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value));
