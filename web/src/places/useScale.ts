import { type RefObject, useLayoutEffect, useState } from "react";

/** Narrower than this in pixels for a mm a board cannot be read or touched: then it is drawn longer than the page and scrolled. */
const LEAST = { desk: 0.15, phone: 0.24 };
const DESK = 640;

/** Pixels for a mm, so that the longest board of all fills the page's width. */
export function useScale(holder: RefObject<HTMLElement | null>, longestMm: number, besides: number): number {
  const [width, setWidth] = useState(0);
  useLayoutEffect(() => {
    const element = holder.current;
    if (!element) return;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [holder]);
  return Math.max(width < DESK ? LEAST.phone : LEAST.desk, (width - besides) / Math.max(1, longestMm));
}
