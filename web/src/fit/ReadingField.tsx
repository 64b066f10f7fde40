import { useState } from "react";
import type { Answer } from "../api/call";
import type { Figure, Fit, Problem } from "../api/types";
import { FigureText } from "../ui/FigureText";

type Props = {
  label: string;
  expected: Figure;
  value: Figure | null;
  typed: string;
  tone: string;
  /** Beside the field: what it should read. */
  short?: boolean;
  onRead: (text: string, inches: boolean) => Promise<Answer<Fit>>;
  onFocus?: () => void;
};

/** What tape, gauge or feeler reads, typed where it stands; what cannot be stays as it was typed, with what is wrong. */
export function ReadingField({ label, expected, value, typed, tone, short, onRead, onFocus }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const shown = text ?? (value ? typed || value.typed : "");
  const send = async (inches = false) => {
    const wish = text?.trim();
    if (!wish || (wish === typed && !inches)) {
      setText(null);
      setProblem(null);
      return;
    }
    const answer = await onRead(wish, inches);
    setProblem(answer.ok ? null : answer.problem);
    if (answer.ok) setText(null);
  };
  const ask = problem?.errors?.find((e) => e.ask === "inches");
  return (
    <span className="reading" data-tone={tone} data-wrong={problem ? true : undefined}>
      <span className="reading-box">
        <input
          value={shown}
          placeholder="reads …"
          aria-label={`${label}, should be ${expected.spoken}`}
          aria-invalid={problem ? true : undefined}
          onChange={(e) => setText(e.target.value)}
          onFocus={onFocus}
          onBlur={() => send()}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              send();
            }
            if (e.key === "Escape") {
              setText(null);
              setProblem(null);
            }
          }}
        />
        <span aria-hidden="true" className={`reading-of ${short ? "" : "max-sm:hidden"}`}>
          of <FigureText figure={expected} />
        </span>
      </span>
      {problem && (
        <span role="alert" className="reading-wrong">
          {problem.errors?.[0]?.text ?? problem.detail}
          {ask && (
            <button type="button" className="plain-button" onClick={() => send(true)}>
              Yes, inches
            </button>
          )}
        </span>
      )}
    </span>
  );
}
