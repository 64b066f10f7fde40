import { useQuery } from "@tanstack/react-query";
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import { api, fetched } from "../api/call";
import { projectKey } from "../api/documents";
import { SolidScene } from "./scene";

type Props = {
  project: string;
  version: number;
  label: string;
  touched: string[];
  onTouch: (part: string) => void;
};

const TURN = 0.12;
const PER_PIXEL = 0.008;

/** The whole as solids: turned by dragging or the arrow keys, pulled apart, its parts touched. */
export default function SolidView({ project, version, label, touched, onTouch }: Props) {
  const host = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<SolidScene | null>(null);
  const drag = useRef<{ x: number; y: number; moved: number } | null>(null);
  const [apart, setApart] = useState(0);
  const [without, setWithout] = useState(false);
  const solids = useQuery({
    queryKey: projectKey(project, "solids", version),
    queryFn: () =>
      fetched(api.GET("/api/projects/{project_id}/solids", { params: { path: { project_id: project } } })),
    placeholderData: (before) => before,
  });

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
    if (solids.data) scene.current?.show(solids.data);
  }, [solids.data]);
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
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 px-6 py-3">
        <label className="flex items-center gap-3">
          Pull apart
          <input
            type="range"
            min={0}
            max={1}
            step={0.02}
            value={apart}
            className="h-10 w-44 accent-ink"
            onChange={(event) => setApart(Number(event.target.value))}
          />
        </label>
        <button type="button" className="plain-button" onClick={() => scene.current?.fromTheFront()}>
          From the front
        </button>
        <span className="text-[15px] text-ink-2">
          Drag to turn, touch a part. Blue: faces that meet. Red: a joint left open.
        </span>
      </div>
    </div>
  );
}
