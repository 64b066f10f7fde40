import { useState } from "react";
import type { Side } from "../api/fit";
import type { Fit, GapJoint, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { ReadingField } from "./ReadingField";
import type { Doing } from "./useFit";

export const SIGN = { right: "closes", near: "opens", wrong: "warning", none: "note" } as const;
export const INK = { right: "text-go", near: "text-ink", wrong: "text-warn", none: "text-ink" } as const;

type Props = { fit: Fit; held: Held<Fit>; doing: Doing; onProblem: (problem: Problem | null) => void };

/** What the readings mean, the worst first; a feeler at a joint; what was read of things that are gone. */
export function ReadingsPanel({ fit, held, doing, onProblem }: Props) {
  const taken = fit.readings.filter((r) => r.record);
  return (
    <>
      <h2 id="readings-mean" className="text-[20px]">
        What the readings mean
      </h2>
      {fit.told.length === 0 && (
        <p className="text-ink-2">
          Nothing is read yet. Lay it together dry, measure on the drawing what is easiest to reach, and type
          it there.
        </p>
      )}
      <div aria-live="polite">
        {fit.told.map((told) => (
          <Verdict key={told.keys.join(" ")} tone={told.tone} title={told.title} text={told.text} />
        ))}
      </div>
      {fit.besides.map((control) => (
        <ControlField
          key={control.id}
          control={control}
          onAct={held.act}
          onLook={async () => null}
          onProblem={onProblem}
        />
      ))}
      <Feeler fit={fit} doing={doing} />
      {taken.length > 0 && (
        <details className="mt-4">
          <summary className="min-h-10 py-2 font-semibold">All readings</summary>
          <ul>
            {taken.map((r) => (
              <li key={r.key} className="flex items-center gap-3 border-b border-line py-1">
                <span className="flex-1">
                  {r.label}: {r.typed || r.value?.spoken}
                </span>
                <button type="button" className="plain-button" onClick={() => doing.back(r.record)}>
                  Take back<span className="sr-only">: {r.label}</span>
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
      <Strays fit={fit} doing={doing} />
    </>
  );
}

export function Verdict({ tone, title, text }: { tone: keyof typeof SIGN; title: string; text: string[] }) {
  return (
    <div className="border-t border-line py-2">
      <h3 className={`flex items-start gap-2 text-[17px] font-semibold ${INK[tone]}`}>
        <Sign is={SIGN[tone]} />
        {title}
      </h3>
      {text.map((line) => (
        <p key={line} className="mt-1">
          {line}
        </p>
      ))}
    </div>
  );
}

/** A gap at a joint: which joint, which side, what the feeler says; then what to do about it. */
function Feeler({ fit, doing }: { fit: Fit; doing: Doing }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [side, setSide] = useState<Side>("even");
  if (fit.gaps.length === 0) return null;
  const here = fit.gaps.find((gap) => gap.key === chosen) ?? (fit.gaps[0] as GapJoint);
  const read = fit.gaps.filter((gap) => gap.record);
  return (
    <section aria-labelledby="feeler" className="mt-4">
      <h2 id="feeler" className="text-[20px]">
        A gap at a joint
      </h2>
      <div className="grid gap-2">
        <label className="grid gap-1">
          <span className="text-ink-2">Where</span>
          <select
            className="plain-button w-full"
            value={here.key}
            onChange={(e) => {
              const next = fit.gaps.find((gap) => gap.key === e.target.value);
              setChosen(e.target.value);
              setSide((next?.side as Side) || "even");
            }}
          >
            {fit.gaps.map((gap) => (
              <option key={gap.key} value={gap.key}>
                {gap.label}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          <span className="text-ink-2">On which side</span>
          <select
            className="plain-button w-full"
            value={side}
            onChange={(e) => setSide(e.target.value as Side)}
          >
            {here.sides.map(([code, name]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <span className="flex items-center justify-between gap-3">
          <span className="text-ink-2">The feeler says</span>
          <ReadingField
            key={`${here.key} ${side}`}
            label={`Gap, ${here.label}`}
            expected={{ whole: "0", fraction: "", hair: "", exact: "", unit: "", spoken: "0", typed: "0" }}
            value={here.side === side ? here.value : null}
            typed=""
            tone={here.tone}
            short
            onRead={(text, inches) => doing.read(here.key, text, side, inches)}
          />
        </span>
      </div>
      <div aria-live="polite">
        {read.map((gap) => (
          <div key={gap.key}>
            <Verdict tone={gap.tone} title={`${gap.label}: ${gap.title}`} text={gap.text} />
            <button type="button" className="plain-button" onClick={() => doing.back(gap.record)}>
              Take back<span className="sr-only">: {gap.label}</span>
            </button>
          </div>
        ))}
      </div>
    </section>
  );
}

/** Kept, and shown apart: what was read of parts that the project no longer has. */
export function Strays({ fit, doing }: { fit: Fit; doing: Doing }) {
  if (fit.made.strays.length === 0) return null;
  return (
    <section aria-labelledby="strays" className="mt-4">
      <h2 id="strays" className="text-[20px]">
        Read of what is no longer there
      </h2>
      <ul>
        {fit.made.strays.map((stray) => (
          <li key={stray.record} className="flex items-center gap-3 border-b border-line py-1">
            <span className="flex-1">{stray.text}</span>
            <button type="button" className="plain-button" onClick={() => doing.back(stray.record)}>
              Take back<span className="sr-only">: {stray.text}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
