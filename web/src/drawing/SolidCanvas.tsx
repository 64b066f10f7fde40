import { type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef, useState } from "react";
import type { Solids } from "../api/types";
import { SolidScene } from "./scene";

type Props = {
  solids: Solids | undefined;
  label: string;
  touched: string[];
  onTouch: (part: string) => void;
  /** What stands under it: the scene can be turned to the front from there. */
  children?: (toFront: () => void) => ReactNode;
  apart?: number;
};

const TURN = 0.12;
const PER_PIXEL = 0.008;

/** Solids that turn by dragging or the arrow keys, their parts touched. */
export default function SolidCanvas({ solids, label, touched, onTouch, children, apart = 0 }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<SolidScene | null>(null);
  const drag = useRef<{ x: number; y: number; moved: number } | null>(null);
  const [without, setWithout] = useState(false);
  useEffect(() => {
    if (!canvas.current || !host.current) return;
    try {
      scene.current = new SolidScene(canvas.current, host.current);
    } catch {
      setWithout(true);
      return;
    }
    const own = scene.current;
    const observer = new ResizeObserver(() => own.draw());
    observer.observe(host.current);
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    const recolour = () => own.recolour();
    dark.addEventListener("change", recolour);
    return () => {
      observer.disconnect();
      dark.removeEventListener("change", recolour);
      own.close();
      scene.current = null;
    };
  }, []);
  useEffect(() => {
    if (solids) scene.current?.show(solids);
  }, [solids]);
  useEffect(() => scene.current?.touch(touched), [touched]);
  useEffect(() => scene.current?.pull(apart), [apart]);

  if (without) {
    return (
      <p className="m-6 max-w-prose">
        This browser cannot draw solids that turn (it has no WebGL). The drawn view shows the same parts and
        figures.
      </p>
    );
  }
  const onKey = (event: KeyboardEvent) => {
    const own = scene.current;
    const acts: Record<string, () => void> = {
      ArrowLeft: () => own?.turn(-TURN, 0),
      ArrowRight: () => own?.turn(TURN, 0),
      ArrowUp: () => own?.turn(0, -TURN),
      ArrowDown: () => own?.turn(0, TURN),
      "+": () => own?.closer(0.9),
      "-": () => own?.closer(1.1),
      Home: () => own?.fromTheFront(),
    };
    const act = acts[event.key];
    if (act) {
      event.preventDefault();
      act();
    }
  };
  const onMove = (event: PointerEvent) => {
    if (!drag.current) return;
    const [dx, dy] = [event.clientX - drag.current.x, event.clientY - drag.current.y];
    drag.current = {
      x: event.clientX,
      y: event.clientY,
      moved: drag.current.moved + Math.abs(dx) + Math.abs(dy),
    };
    scene.current?.turn(dx * PER_PIXEL, dy * PER_PIXEL);
  };
  const onUp = (event: PointerEvent<HTMLCanvasElement>) => {
    const still = drag.current && drag.current.moved < 5;
    drag.current = null;
    if (!still) return;
    const box = event.currentTarget.getBoundingClientRect();
    const part = scene.current?.partAt(event.clientX - box.left, event.clientY - box.top);
    if (part) onTouch(part);
  };
  return (
    <div className="flex min-h-[340px] flex-1 flex-col lg:min-h-0">
      <div ref={host} className="relative min-h-0 flex-1">
        <canvas
          ref={canvas}
          tabIndex={0}
          role="img"
          aria-label={`${label} as solids; arrow keys turn it, plus and minus come closer, Home looks from the front`}
          className="absolute inset-0 h-full w-full cursor-grab touch-none"
          onKeyDown={onKey}
          onWheel={(event) => scene.current?.closer(event.deltaY > 0 ? 1.08 : 0.92)}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, y: event.clientY, moved: 0 };
          }}
          onPointerMove={onMove}
          onPointerUp={onUp}
          onPointerCancel={() => {
            drag.current = null;
          }}
        />
      </div>
      {children?.(() => scene.current?.fromTheFront())}
    </div>
  );
}
