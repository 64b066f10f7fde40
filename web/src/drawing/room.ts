import type { View } from "../api/types";
import { type Camera, fit, type Pad } from "./camera";
import { placed } from "./dimensions";

/** What stays free round everything, less where the room is small. */
const marginIn = (size: { width: number }) => (size.width < 300 ? 6 : 20);

/** The camera that shows the view with all its dimension lines inside, at the largest scale that allows it. */
export function framed(
  view: View,
  size: { width: number; height: number },
  extraRight: number,
  letters: number,
): Camera {
  const margin = marginIn(size);
  let pad: Pad = { left: margin, right: margin + extraRight, top: margin, bottom: margin };
  // Standing-off lines keep their distance in pixels while the thing shrinks: a few rounds settle it.
  for (let round = 0; round < 4; round++) {
    const over = overhang(view, fit(view, { ...size, pad }), size, extraRight, letters);
    if (Math.max(over.left, over.right, over.top, over.bottom) < 1) break;
    pad = {
      left: pad.left + over.left,
      right: pad.right + over.right,
      top: pad.top + over.top,
      bottom: pad.bottom + over.bottom,
    };
  }
  return fit(view, { ...size, pad });
}

/** By how much dimension lines and their figures reach over each edge of the room. */
function overhang(
  view: View,
  camera: Camera,
  size: { width: number; height: number },
  extraRight: number,
  letters: number,
): Pad {
  const margin = marginIn(size);
  const over = { left: 0, right: 0, top: 0, bottom: 0 };
  const reach = (x: number, y: number, halfX: number, halfY: number) => {
    over.left = Math.max(over.left, margin - (x - halfX));
    over.right = Math.max(over.right, x + halfX - (size.width - extraRight - margin));
    over.top = Math.max(over.top, margin - (y - halfY));
    over.bottom = Math.max(over.bottom, y + halfY - (size.height - margin));
  };
  for (const { dimension, a, b, label, block } of placed(camera, view.dimensions, letters)) {
    if (!dimension.about) for (const p of [a, b]) reach(p[0], p[1], 4, 4);
    reach(label[0], label[1], block.halfWidth, block.halfHeight);
  }
  return over;
}
