import type { KeyboardEvent, MouseEvent } from "react";
import type { Face as AnyFace, Point } from "../api/types";
import { type Camera, path, toPaper, toScreen } from "./camera";

/** A side as it is touched. */
type Face = Pick<AnyFace, "board" | "label" | "outline"> & { side: string; more?: AnyFace["outline"][] };

type Props<F extends Face> = {
  faces: F[];
  chosen: F[];
  camera: Camera;
  onTouch: (face: F, at: Point | null) => void;
  /** What else it looks like. */
  look?: (face: F) => string;
};

/** Faces to be touched on a drawing, those that are seen edge on as lines; by keyboard each is touched in its middle. */
export function FaceTargets<F extends Face>({ faces, chosen, camera, onTouch, look }: Props<F>) {
  const screen = (face: F) => path(face.outline.map((p) => toScreen(camera, p as Point)));
  const touch = (face: F) => (event: MouseEvent<SVGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    onTouch(face, toPaper(camera, [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)]));
  };
  const key = (face: F) => (event: KeyboardEvent<SVGElement>) => {
    if (event.key !== "Enter" && event.key !== " ") return;
    event.preventDefault();
    onTouch(face, null);
  };
  return (
    <g>
      {faces.map((face) => (
        // biome-ignore lint/a11y/useSemanticElements: a face inside a drawing cannot be a button element
        <g
          key={`${face.board}|${face.side}`}
          className="face-target"
          role="button"
          tabIndex={0}
          aria-label={face.label}
          onClick={touch(face)}
          onKeyDown={key(face)}
        >
          <title>{face.label}</title>
          {face.outline.length > 2 ? (
            [face.outline, ...(face.more ?? [])].map((outline) => {
              const points = path(outline.map((p) => toScreen(camera, p as Point)));
              return <polygon key={points} className={`face ${look?.(face) ?? ""}`} points={points} />;
            })
          ) : (
            <>
              <polyline className="face-reach" points={screen(face)} />
              <polyline className="face edge-on" points={screen(face)} />
            </>
          )}
        </g>
      ))}
      {chosen.map((face) => (
        <g key={`${face.board}|${face.side}`} className="face-chosen">
          <polygon className="casing" points={screen(face)} />
          <polygon points={screen(face)} />
        </g>
      ))}
    </g>
  );
}
