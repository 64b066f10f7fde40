import type { Figure } from "../api/types";

/** A figure with its true fraction, unit and remainder. */
export function FigureText({ figure, className = "" }: { figure: Figure; className?: string }) {
  const close = figure.unit === "″" || figure.unit === "°";
  return (
    <span className={`figure ${className}`}>
      {figure.whole}
      {figure.fraction && <span className="fraction">{figure.fraction}</span>}
      {figure.unit && <span className={close ? "unit" : "unit spaced"}>{figure.unit}</span>}
      {figure.remainder && <span className="remainder">{figure.remainder}</span>}
    </span>
  );
}
