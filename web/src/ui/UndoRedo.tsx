import type { Problem } from "../api/types";

type Step = { undo: string | null; redo: string | null };
type Props = {
  here: { saved: Step | undefined; undo: () => Promise<Problem | null>; redo: () => Promise<Problem | null> };
  doing: (what: () => Promise<Problem | null>) => void;
};

/** The last change back, and again: each says what it was. */
export function UndoRedo({ here, doing }: Props) {
  return (["undo", "redo"] as const).map((way) => {
    const what = here.saved?.[way];
    const name = way === "undo" ? "Undo" : "Redo";
    return (
      <button
        key={way}
        type="button"
        className="quiet-button"
        disabled={!what}
        title={what ? `${name}: ${what}` : undefined}
        onClick={() => doing(here[way])}
      >
        {name}
        <span className="sr-only">{what ? `: ${what}` : ""}</span>
      </button>
    );
  });
}
