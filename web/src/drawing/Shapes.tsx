import type { Mark, Point, Shape } from "../api/types";
import { type Camera, path, toScreen } from "./camera";

type Touch = { touched?: string[]; onTouch?: (part: string) => void };

/** The pattern for a direction of the grain: all shapes that run the same way share one. */
const grainId = (base: string, shape: Shape, touched: boolean): string => {
  const [x, y] = shape.grain ?? [1, 0];
  return `${base}${Math.round(x * 200)}_${Math.round(y * 200)}${touched ? "t" : ""}`;
};

/** Hatching for waste, in pixels so that every drawing has the same, and the grain in every direction that is drawn. */
export function Patterns({ base, shapes, touched }: { base: string; shapes: Shape[]; touched?: string[] }) {
  const grains = new Map<string, { shape: Shape; touched: boolean }>();
  for (const shape of shapes) {
    if (shape.role !== "wood") continue;
    const isTouched = touched?.includes(shape.part ?? "") ?? false;
    grains.set(grainId(base, shape, isTouched), { shape, touched: isTouched });
  }
  return (
    <defs>
      {[...grains].map(([id, { shape, touched }]) => {
        const [x, y] = shape.grain ?? [1, 0];
        return (
          <pattern
            key={id}
            id={id}
            width="120"
            height="22"
            patternUnits="userSpaceOnUse"
            patternTransform={`matrix(${x} ${-y} ${y} ${x} 0 0)`}
          >
            <path
              className={touched ? "touched-graining" : "graining"}
              d="M0 6q30-4 60 0t60 0M0 15q30 3 60 0t60 0"
            />
          </pattern>
        );
      })}
      <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line className="hatching" x1="0" y1="0" x2="0" y2="7" />
      </pattern>
    </defs>
  );
}

export function ShapeDrawn({
  shape,
  camera,
  base,
  touched,
  onTouch,
}: { shape: Shape; camera: Camera; base: string } & Touch) {
  const points = path(shape.points.map((p) => toScreen(camera, p as Point)));
  const part = shape.part ?? "";
  if (shape.role === "wood") {
    const isTouched = touched?.includes(part) ?? false;
    return (
      <g>
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the parts list does the same by keyboard */}
        <polygon
          className={`wood tone-${shape.tone} ${isTouched ? "touched" : ""} ${onTouch ? "touchable" : ""}`}
          points={points}
          data-part={part}
          onClick={onTouch && (() => onTouch(part))}
        />
        <polygon points={points} fill={`url(#${grainId(base, shape, isTouched)})`} pointerEvents="none" />
      </g>
    );
  }
  return shape.closed ? (
    <polygon className={shape.role} points={points} />
  ) : (
    <polyline className={shape.role} points={points} fill="none" />
  );
}

export function MarkDrawn({ mark, camera }: { mark: Mark; camera: Camera }) {
  const [x, y] = toScreen(camera, mark.at as Point);
  if (mark.role === "long_point") return <circle className="long_point" cx={x} cy={y} r={6} />;
  if (mark.role === "face_mark") {
    return <path className="pencil" d={`M${x - 9} ${y + 9}c2-22 20-22 17-6c-2 9-14 8-20 4`} />;
  }
  if (mark.role === "triangle") {
    return (
      <path
        className="pencil"
        d="M0-10l12 19h-24z"
        transform={`translate(${x} ${y}) rotate(${-(mark.turn_deg ?? 0)})`}
      />
    );
  }
  return (
    <text x={x} y={y} textAnchor="middle" dominantBaseline="central" fontSize={15} pointerEvents="none">
      {mark.role === "name" && mark.part ? `${mark.text} ${mark.part}` : mark.text}
    </text>
  );
}
