import { type ReactNode, useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Act, Dimension, Problem, Shape, View } from "../api/types";
import { FigureField } from "../ui/FigureField";
import { FigureText } from "../ui/FigureText";
import { type Camera, fit, type Pad } from "./camera";
import { apart, DimensionLine, place } from "./dimensions";
import { GripRing } from "./GripRing";
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
  onAct?: (acts: Act[]) => Promise<Problem | null>;
  onLook?: (acts: Act[] | null) => Promise<Problem | null>;
  onProblem?: (problem: Problem | null) => void;
  step?: number;
  /** What else is drawn on top, in place of the sizes and rings. */
  over?: (camera: Camera) => ReactNode;
};

const BARE = { left: 8, right: 8, top: 8, bottom: 8 };
/** Below this width the words beside a figure would hide the drawing. */
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
  onAct,
  onLook,
  onProblem,
  step = 1,
  over,
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

  const fitted = useMemo(() => {
    if (pad || view.dimensions.length === 0) return fit(view, { ...size, pad: pad ?? BARE });
    return framed(view, size, extraRight);
  }, [view, size, pad, extraRight]);
  // While a grip is held the drawing keeps its scale, or it would run away from under the finger.
  const frozen = useRef<Camera>(fitted);
  useEffect(() => {
    if (!held) frozen.current = fitted;
  }, [held, fitted]);
  const camera = held ? frozen.current : fitted;
  const placed = apart(view.dimensions.map((d) => place(camera, d)));
  const base = useId();
  const editable = onAct && onLook;
  const roomForWords = view.short !== "" && size.width > ROOM_FOR_WORDS;
  // Words stand beside a figure where its line is level and long enough to carry them.
  const wordsFor = (d: Dimension) => {
    const [across, up] = [Math.abs(d.b[0] - d.a[0]), Math.abs(d.b[1] - d.a[1])];
    const long = across * camera.scale > Math.max(240, d.label.length * 7.2 + 120) && up < across / 10;
    return roomForWords && long && !d.id.includes(":") ? d.label : undefined;
  };

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
            {!over && placed.map((p) => <DimensionLine key={p.dimension.id} placed={p} />)}
            {view.marks.map((mark, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: marks have no name of their own and keep their order
              <MarkDrawn key={i} mark={mark} camera={camera} />
            ))}
            {over?.(camera)}
            {editable &&
              !over &&
              view.grips.map((grip) => (
                <GripRing
                  key={grip.id}
                  grip={grip}
                  camera={camera}
                  name={grip.name}
                  step={step}
                  onHold={setHeld}
                  onLook={onLook}
                  onAct={async (acts) => onProblem?.(await onAct(acts))}
                />
              ))}
          </svg>
          {!over &&
            placed.map(({ dimension, label: at }) => (
              <span
                key={dimension.id}
                className="figure-place absolute -translate-x-1/2 -translate-y-1/2"
                style={{ left: clamp(at[0], 40, size.width - 40), top: clamp(at[1], 16, size.height - 16) }}
              >
                {editable && dimension.acts ? (
                  <FigureField
                    figure={dimension.figure}
                    label={dimension.label}
                    standing={dimension.standing}
                    acts={dimension.acts as Act}
                    canFree={dimension.can_free}
                    words={wordsFor(dimension)}
                    onAct={onAct}
                    onLook={onLook}
                  />
                ) : (
                  <>
                    <FigureText figure={dimension.figure} className="px-1" />
                    {wordsFor(dimension) && <span className="text-[15px]">{wordsFor(dimension)}</span>}
                  </>
                )}
              </span>
            ))}
        </>
      )}
    </div>
  );
}

const clamp = (value: number, low: number, high: number) => Math.max(low, Math.min(high, value));
