import { useCallback } from "react";
import type { Act, Control, FitLine, Problem, WhyLine } from "../api/types";
import type { Held } from "../api/useDocument";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { Why } from "../ui/Why";

/** Nothing is looked at before it is saved: what follows is drawn anew after each act. */
export const noLook = async () => null;

type Acting = {
  held: Pick<Held<unknown>, "act">;
  onProblem: (problem: Problem | null) => void;
};

/** Things to decide, one under the other. */
export function Controls({ controls, held, onProblem }: Acting & { controls: Control[] }) {
  return controls.map((control) => (
    <ControlField key={control.id} control={control} onAct={held.act} onLook={noLook} onProblem={onProblem} />
  ));
}

/** Figures that open to say where they come from. */
export function WhyRows({ rows }: { rows: WhyLine[] }) {
  return rows.map((row) =>
    row.lines && row.lines.length > 0 ? (
      <Why key={row.title + row.figure} title={row.title} note={row.note ?? ""} lines={row.lines}>
        <Said row={row} />
      </Why>
    ) : (
      <div
        key={row.title + row.figure}
        className="flex items-center justify-between gap-3 border-t border-line py-2"
      >
        <span>
          <span className="block font-medium">{row.title}</span>
          {row.note && <span className="block text-[15px] text-ink-2">{row.note}</span>}
        </span>
        <Said row={row} />
      </div>
    ),
  );
}

function Said({ row }: { row: WhyLine }) {
  const tone = row.tone ?? "none";
  return (
    <span className={`figure flex items-center gap-2 text-right ${INK[tone]}`}>
      {tone !== "none" && <Sign is={SIGN[tone]} />}
      {row.figure}
    </span>
  );
}

/** Sentences, each with its figure and sign. */
export function SaidLines({ lines, label }: { lines: FitLine[]; label: string }) {
  return (
    <ul aria-label={label}>
      {lines.map((line) => {
        const tone = line.tone ?? "none";
        return (
          <li
            key={line.text + line.figure}
            className="flex items-start justify-between gap-3 border-b border-line py-1.5"
          >
            <span className={`flex items-start gap-2 ${INK[tone]}`}>
              {tone !== "none" && <Sign is={SIGN[tone]} />}
              <span>
                {line.text}
                {line.note && <span className="block text-[15px] text-ink-2">{line.note}</span>}
              </span>
            </span>
            {line.figure && <span className="figure shrink-0 text-right">{line.figure}</span>}
          </li>
        );
      })}
    </ul>
  );
}

/** The usual caution, at its step. */
export function Care({ care }: { care: string[] }) {
  if (care.length === 0) return null;
  return (
    <section aria-label="Take care" className="mt-4">
      <h2 className="flex items-center gap-2 text-[18px]">
        <Sign is="warning" />
        Take care
      </h2>
      <ul className="list-disc pl-5 text-[15px]">
        {care.map((text) => (
          <li key={text} className="py-0.5">
            {text}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Some acts at once; what cannot be is said above the page. */
export function useActs({ held, onProblem }: Acting) {
  return useCallback(async (acts: Act[]) => onProblem(await held.act(acts)), [held.act, onProblem]);
}
