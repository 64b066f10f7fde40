import type { KeyboardEvent, MouseEvent } from "react";
import type { Face, Point } from "../api/types";
import { type Camera, path, toPaper, toScreen } from "./camera";

type Props = {
  faces: Face[];
  chosen: Face[];
  camera: Camera;
  onTouch: (face: Face, at: Point | null) => void;
};

/** Faces to be touched on a drawing, those that are seen edge on as lines; by keyboard each is touched in its middle. */
export function FaceTargets({ faces, chosen, camera, onTouch }: Props) {
  const screen = (face: Face) => path(face.outline.map((p) => toScreen(camera, p as Point)));
  const touch = (face: Face) => (event: MouseEvent<SVGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    onTouch(face, toPaper(camera, [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)]));
  };
  const key = (face: Face) => (event: KeyboardEvent<SVGElement>) => {
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
            <polygon className="face" points={screen(face)} />
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
