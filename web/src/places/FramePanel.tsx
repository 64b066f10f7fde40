import { memo, useEffect, useMemo, useRef, useState } from "react";
import type { Act, Control, Problem, Sheet, Size } from "../api/types";
import { ControlField } from "../ui/ControlField";
import { FigureField } from "../ui/FigureField";
import { FigureText } from "../ui/FigureText";
import { standsByItself } from "./text";

type Does = {
  onAct: (acts: Act[]) => Promise<Problem | null>;
  onLook: (acts: Act[] | null) => Promise<Problem | null>;
  onProblem: (problem: Problem | null) => void;
};

const FOLDED = ["each_corner", "open", "following"];
const NONE: Control[] = [];

/** What there is to decide about the whole, in the order in which one decides it, and every size of it; of several
 * assemblies each one's own folded together. */
export function FramePanel({ sheet, ...does }: { sheet: Sheet } & Does) {
  const controls = useMemo(() => {
    const by = new Map<string, Control[]>();
    for (const control of sheet.controls.filter((c) => c.group !== "part")) {
      by.set(control.whose, [...(by.get(control.whose) ?? []), control]);
    }
    return by;
  }, [sheet.controls]);
  const owners = [...new Set([...controls.keys(), ...sheet.sizes.map((size) => size.whose)])].filter(
    (whose) => whose,
  );
  const sizes = sheet.sizes.filter((size) => !size.whose);
  // The first one's is open, or that of one that has just been added.
  const [begun] = useState(() => new Set(owners));
  const added = owners.filter((whose) => !begun.has(whose)).at(-1);
  const opened = useRef<HTMLDetailsElement>(null);
  useEffect(() => {
    if (added) opened.current?.scrollIntoView();
  }, [added]);
  return (
    <>
      {owners.map((whose, i) => (
        <details
          key={whose}
          ref={whose === added ? opened : undefined}
          open={added ? whose === added : i === 0}
          className="border-b-2 border-ink py-1"
        >
          <summary className="min-h-11 py-2 text-[19px] font-semibold">{whose}</summary>
          <Groups controls={controls.get(whose) ?? NONE} {...does} />
          <Sizes sizes={sheet.sizes.filter((size) => size.whose === whose)} {...does} />
        </details>
      ))}
      <Groups controls={controls.get("") ?? NONE} {...does} />
      {sheet.simple.length > 0 && (
        <details className="border-b border-line py-2">
          <summary className="min-h-10 py-2 font-semibold">What a simple setting would do</summary>
          <ul>
            {sheet.simple.map((line) => (
              <li key={line.how + line.text} className="py-1 text-[15px]">
                <span className="block text-ink-2">{line.how}:</span>
                {line.text}
              </li>
            ))}
          </ul>
        </details>
      )}
      {sizes.length > 0 && <Sizes sizes={sizes} {...does} />}
      {sheet.cautions.map((text) => (
        <p key={text} className="border-t border-line py-3 text-[15px] text-ink-2">
          {text}
        </p>
      ))}
    </>
  );
}

/** They are drawn again only when there is something else to decide, not with every key that is typed. */
const Groups = memo(function Groups({ controls, ...does }: { controls: Control[] } & Does) {
  const groups = [...new Set(controls.map((c) => c.group))];
  return groups.map((group) => {
    const own = controls.filter((c) => c.group === group);
    const fields = own.map((c) => <ControlField key={c.id} control={c} {...does} />);
    const heading = own[0]?.group_label ?? group;
    return FOLDED.includes(group) ? (
      <details key={group} className="border-b border-line py-2">
        <summary className="min-h-10 py-2 font-semibold">{heading}</summary>
        {fields}
      </details>
    ) : (
      <section
        key={group}
        aria-label={`${own[0]?.whose ?? ""} ${heading}`.trim()}
        className="border-b border-line py-3"
      >
        <h2 className="mb-1 text-[17px]">{heading}</h2>
        {fields}
      </section>
    );
  });
});

function Sizes({ sizes, onAct, onLook, onProblem }: { sizes: Size[] } & Does) {
  return (
    <section aria-label={`${sizes[0]?.whose ?? ""} All sizes`.trim()} className="py-3">
      <h2 className="text-[17px]">All sizes</h2>
      <p className="mb-1 text-[15px] text-ink-2">
        In a box: given by you. In a dashed box: suggested, until you type it or it has to give way. Plain:
        follows from the others. Type over any of them, or press Enter on it, to give it yourself. A small +
        or − after a figure: a hair over or under that mark; touch it to see the exact figure.
      </p>
      <ul>
        {sizes.map((size) => (
          <li key={size.id} className="flex items-center justify-between gap-3 py-0.5">
            <span
              aria-hidden={size.acts ? "true" : undefined}
              className={standsByItself(size) ? "font-semibold" : ""}
            >
              {size.own}
            </span>
            <span className="flex items-center gap-1">
              {size.can_free && (
                <button
                  type="button"
                  className="quiet-button"
                  onClick={async () =>
                    onProblem(
                      await onAct([{ op: "free", measure: (size.acts as { measure: string }).measure }]),
                    )
                  }
                >
                  let go<span className="sr-only"> of {size.label}</span>
                </button>
              )}
              {size.acts ? (
                <FigureField
                  figure={size.figure}
                  label={size.label}
                  standing={size.standing}
                  acts={size.acts as Act}
                  canFree={size.can_free}
                  onAct={onAct}
                  onLook={onLook}
                  words={size.figure.sum && `= ${size.figure.sum}`}
                />
              ) : (
                <FigureText figure={size.figure} className="px-1" />
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
