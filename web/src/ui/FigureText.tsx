import type { Figure } from "../api/types";

type Props = { figure: Figure; className?: string; exactly?: boolean };

/** A figure with its true fraction and unit; a raised sign where it is a hair over or under that mark, and what it is exactly. */
export function FigureText({ figure, className = "", exactly = false }: Props) {
  const close = figure.unit === "″" || figure.unit === "°";
  return (
    <span className={`figure ${className}`} title={figure.exact ? `exactly ${figure.exact}` : undefined}>
      {figure.whole}
      {figure.fraction && <span className="fraction">{figure.fraction}</span>}
      {figure.hair && (
        <>
          <span className="hair" aria-hidden="true">
            {figure.hair === "over" ? "+" : "−"}
          </span>
          <span className="sr-only">, a hair {figure.hair}, </span>
        </>
      )}
      {figure.unit && <span className={close ? "unit" : "unit spaced"}>{figure.unit}</span>}
      {exactly && figure.exact && <span className="exact">exactly {figure.exact}</span>}
    </span>
  );
}
