import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from "react";
import type { Act, Grip, Point } from "../api/types";
import { type Camera, toPaper, toScreen } from "./camera";

type Props = {
  grip: Grip;
  camera: Camera;
  name: string;
  step: number;
  /** How far from its middle it is still touched, in pixels. */
  reach: number;
  onHold: (held: boolean) => void;
  onLook: (acts: Act[] | null) => void;
  onAct: (acts: Act[]) => Promise<unknown>;
};

/** A ring that is dragged with the pointer, or moved with the arrow keys and set down with Enter. One drag, one save. */
export function GripRing({ grip, camera, name, step, reach, onHold, onLook, onAct }: Props) {
  const [held, setHeld] = useState<Point | null>(null);
  const dropped = useRef(false);
  const began = useRef<Point>([0, 0]);
  const look = useRef(onLook);
  look.current = onLook;
  const holds = useRef(false);
  holds.current = held !== null;
  // A ring that goes while it is held, since the drawing has become another one, leaves nothing behind that is not saved.
  useEffect(
    () => () => {
      if (holds.current) look.current(null);
    },
    [],
  );
  const at = held ?? toScreen(camera, grip.at as Point);

  const drag = (screen: Point): Act[] => {
    const [x_mm, y_mm] = toPaper(camera, screen);
    return [{ op: "drag", grip: grip.id, x_mm, y_mm }];
  };
  const letGo = () => {
    setHeld(null);
    onHold(false);
  };
  const place = (event: PointerEvent<SVGElement>): Point => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    const pointer: Point = [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
    if (!grip.along) return pointer;
    // Only the part of the movement along the grip's direction counts.
    const start = toScreen(camera, grip.at as Point);
    const length = Math.hypot(grip.along[0], grip.along[1]) || 1;
    const way: Point = [grip.along[0] / length, -grip.along[1] / length];
    const moved = (pointer[0] - start[0]) * way[0] + (pointer[1] - start[1]) * way[1];
    return [start[0] + way[0] * moved, start[1] + way[1] * moved];
  };
  const onKey = (event: KeyboardEvent<SVGElement>) => {
    const ways: Record<string, Point> = {
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
    };
    const way = ways[event.key];
    if (way) {
      event.preventDefault();
      event.stopPropagation();
      const by = step * camera.scale * (event.shiftKey ? 10 : 1);
      const next: Point = [at[0] + way[0] * by, at[1] + way[1] * by];
      setHeld(next);
      onHold(true);
      onLook(drag(next));
    } else if (event.key === "Enter" && held) {
      onAct(drag(held)).finally(letGo);
    } else if (event.key === "Escape" && held) {
      letGo();
      onLook(null);
    }
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a ring inside a drawing cannot be a button element
    <g
      className="grip-holder"
      tabIndex={0}
      role="button"
      aria-label={`${name}: drag it, or move it with the arrow keys and set it down with Enter`}
      onKeyDown={onKey}
      onBlur={() => held && !dropped.current && onAct(drag(held)).finally(letGo)}
    >
      <circle className="grip" cx={at[0]} cy={at[1]} r={7} />
      <circle
        className="grip-target"
        cx={at[0]}
        cy={at[1]}
        r={reach}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          dropped.current = true;
          began.current = [event.clientX, event.clientY];
          onHold(true);
          setHeld(at);
        }}
        onPointerMove={(event) => {
          if (!held || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
          const next = place(event);
          setHeld(next);
          onLook(drag(next));
        }}
        onPointerUp={(event) => {
          if (!held) return;
          const next = place(event);
          // From where the pointer went down: the ring itself has moved along with what is looked at.
          const moved = Math.hypot(event.clientX - began.current[0], event.clientY - began.current[1]);
          dropped.current = false;
          if (moved < 3) {
            letGo();
            onLook(null);
            touchUnder(event);
          } else {
            onAct(drag(next)).finally(letGo);
          }
        }}
        onPointerCancel={() => {
          dropped.current = false;
          letGo();
          onLook(null);
        }}
      />
    </g>
  );
}

/** A ring that is touched and not dragged lets the touch through to the board under it. */
function touchUnder(event: PointerEvent<SVGElement>) {
  const under = document.elementsFromPoint(event.clientX, event.clientY);
  const board = under.find((element) => element.matches(".wood.touchable"));
  board?.dispatchEvent(new MouseEvent("click", { bubbles: true }));
}
