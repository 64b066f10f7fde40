import { type PointerEvent, useEffect, useMemo, useRef, useState } from "react";
import type { Act, Plan, PlanBoard } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { useScale } from "./useScale";

const PAD = 10;
const FAR_ENOUGH = 8;

type Props = {
  plan: Plan;
  stale: boolean;
  touched: string | null;
  onTouch: (part: string) => void;
  onAct: (acts: Act[]) => void;
};

type Held = { key: string; from: string; x: number; y: number; over: string | null };

/** The plan: every board to scale, the parts in it with their true ends. A part is touched, or dragged to another board. */
export function PlanSheet({ plan, stale, touched, onTouch, onAct }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const scale = useScale(holder, plan.longest_mm, 2 * PAD);
  const [held, setHeld] = useState<Held | null>(null);
  const begun = useRef<Held | null>(null);

  // By mouse or pen a part can be carried to another board; by finger the page is scrolled, and the card does it.
  const onDown = (event: PointerEvent) => {
    if (event.pointerType === "touch" || event.button !== 0) return;
    const key = (event.target as Element).getAttribute("data-part");
    const from = (event.target as Element).closest("[data-source]")?.getAttribute("data-source");
    if (key && from) begun.current = { key, from, x: event.clientX, y: event.clientY, over: null };
  };
  useEffect(() => {
    const onMove = (event: globalThis.PointerEvent) => {
      const start = begun.current;
      if (!start) return;
      if (!held && Math.hypot(event.clientX - start.x, event.clientY - start.y) < FAR_ENOUGH) return;
      const over = document
        .elementFromPoint(event.clientX, event.clientY)
        ?.closest("[data-source]")
        ?.getAttribute("data-source");
      setHeld({ ...start, x: event.clientX, y: event.clientY, over: over ?? null });
    };
    const onUp = () => {
      const start = begun.current;
      begun.current = null;
      setHeld(null);
      if (!held || !start || !held.over || held.over === start.from) return;
      onAct([{ op: "choose", path: `pins.${start.key}`, value: held.over }]);
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      begun.current = null;
      setHeld(null);
    };
    window.addEventListener("pointermove", onMove);
    window.addEventListener("pointerup", onUp);
    window.addEventListener("keydown", onKey);
    return () => {
      window.removeEventListener("pointermove", onMove);
      window.removeEventListener("pointerup", onUp);
      window.removeEventListener("keydown", onKey);
    };
  }, [held, onAct]);

  return (
    <div
      ref={holder}
      onPointerDown={onDown}
      aria-busy={stale}
      className={`select-none pb-6 ${stale ? "opacity-50" : ""}`}
    >
      {plan.boards.map((board) => (
        <BoardRow
          key={board.id}
          board={board}
          beside={plan.boards.filter((b) => b.source === board.source)}
          scale={scale}
          touched={touched}
          dropped={held !== null && held.over === board.source && held.from !== board.source}
          onTouch={onTouch}
          onAct={onAct}
        />
      ))}
      {plan.boards.length > 0 && <Ruler plan={plan} scale={scale} />}
      {held && (
        <span
          aria-hidden="true"
          className="pointer-events-none fixed z-50 border border-ink bg-touched px-2 py-0.5 font-semibold"
          style={{ left: held.x + 10, top: held.y + 10 }}
        >
          {plan.boards.flatMap((b) => b.pieces).find((p) => p.key === held.key)?.tag}
        </span>
      )}
    </div>
  );
}

type RowProps = {
  board: PlanBoard;
  /** All that are alike, this one too: they are locked together. */
  beside: PlanBoard[];
  scale: number;
  touched: string | null;
  dropped: boolean;
  onTouch: (part: string) => void;
  onAct: (acts: Act[]) => void;
};

function BoardRow({ board, beside, scale, touched, dropped, onTouch, onAct }: RowProps) {
  const names = useMemo(() => new Map(board.pieces.map((p) => [p.key, p.name])), [board.pieces]);
  const lock = board.locked ? null : beside.flatMap((b) => b.pieces.map((p) => p.key));
  return (
    <section
      data-source={board.source}
      aria-label={`${board.name}, ${board.size_text}`}
      className={`mt-2 ${dropped ? "outline-3 outline-focus" : ""}`}
    >
      <div className="flex flex-wrap items-baseline gap-x-3 px-2.5">
        <h2 className="text-[16px] first-letter:uppercase">{board.name}</h2>
        <span className="figure text-ink-2">{board.size_text}</span>
        <span className="flex-1" />
        {!board.bought && (
          <button
            type="button"
            className="quiet-button"
            aria-pressed={board.locked}
            onClick={() => onAct([{ op: "choose", path: `locked.${board.source}`, value: lock }])}
          >
            {board.locked ? "Locked: let it change" : "Lock"}
            <span className="sr-only"> {board.name}</span>
          </button>
        )}
        <button
          type="button"
          className="quiet-button"
          onClick={() => onAct([{ op: "choose", path: `forbidden.${board.source}`, value: true }])}
        >
          Leave it out
          <span className="sr-only">: {board.name}</span>
        </button>
      </div>
      <BoardDrawn board={board} scale={scale} touched={touched} onTouch={onTouch} names={names} />
    </section>
  );
}

type DrawnProps = {
  board: PlanBoard;
  scale: number;
  touched?: string | null;
  onTouch?: (part: string) => void;
  names?: Map<string, string>;
};

/** A board with its parts, and what is to be done to it before they are cut. */
export function BoardDrawn({ board, scale, touched, onTouch, names }: DrawnProps) {
  const height = board.width_mm * scale + 2 * PAD;
  const camera = useMemo(() => ({ scale, x: PAD, y: height - PAD }), [scale, height]);
  return (
    <>
      <div className="overflow-x-auto" tabIndex={onTouch ? undefined : 0}>
        <div style={{ width: board.length_mm * scale + 2 * PAD, height }}>
          <Drawing
            view={board.view}
            label={`${board.name}, ${board.size_text}`}
            className="h-full w-full"
            at={camera}
            touched={touched ? [touched] : []}
            onTouch={onTouch}
            names={names}
          />
        </div>
      </div>
      {board.lines.map((line) => (
        <p key={line} className="px-2.5 text-[15px] text-ink-2">
          {line}
        </p>
      ))}
    </>
  );
}

/** A tape under the boards. */
function Ruler({ plan, scale }: { plan: Plan; scale: number }) {
  return (
    <div className="mt-3 overflow-x-hidden max-sm:hidden">
      <svg
        role="img"
        aria-label="A tape under the boards"
        width={plan.longest_mm * scale + 4 * PAD}
        height={34}
        className="drawing"
      >
        <line className="dimension" x1={PAD} y1={2} x2={PAD + plan.longest_mm * scale} y2={2} />
        {plan.ruler.map(({ at_mm, text }) => (
          <g key={text}>
            <line className="dimension" x1={PAD + at_mm * scale} y1={2} x2={PAD + at_mm * scale} y2={12} />
            <text x={PAD + at_mm * scale} y={26} textAnchor={at_mm ? "middle" : "start"} fontSize={13}>
              {text}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
