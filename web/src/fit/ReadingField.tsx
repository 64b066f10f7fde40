import { type Dispatch, type SetStateAction, useLayoutEffect, useRef, useState } from "react";
import type { Answer } from "../api/call";
import type { Figure, Fit, Problem } from "../api/types";
import { FigureText } from "../ui/FigureText";

/** What stands in the field and was not taken yet, and what is wrong with it. */
export type Typing = { text: string | null; problem: Problem | null };

export const NOTHING: Typing = { text: null, problem: null };

type Props = {
  label: string;
  expected: Figure;
  value: Figure | null;
  typed: string;
  tone: string;
  /** Beside the field: what it should read. */
  short?: boolean;
  /** Who keeps what is being typed, where the field itself can move to another place of the page; else the field does. */
  kept?: [Typing, Dispatch<SetStateAction<Typing>>];
  /** Whether this field is typed in: moved to another place, it takes the focus along. */
  typedIn?: boolean;
  onRead: (text: string, inches: boolean) => Promise<Answer<Fit>>;
  onFocus?: () => void;
};

/** What tape, gauge or feeler reads, typed where it stands; what cannot be stays as it was typed, with what is wrong. */
export function ReadingField({
  label,
  expected,
  value,
  typed,
  tone,
  short,
  kept,
  typedIn,
  onRead,
  onFocus,
}: Props) {
  const own = useState(NOTHING);
  const [{ text, problem }, setTyping] = kept ?? own;
  const input = useRef<HTMLInputElement>(null);
  const moved = useRef(typedIn && text !== null);
  useLayoutEffect(() => {
    if (moved.current && document.activeElement === document.body) input.current?.focus();
  }, []);
  const shown = text ?? (value ? typed || value.typed : "");
  const send = async (inches = false) => {
    const wish = text?.trim();
    if (!wish || (wish === typed && !inches)) {
      setTyping(NOTHING);
      return;
    }
    const answer = await onRead(wish, inches);
    // What was typed on meanwhile stays.
    setTyping((now) => {
      if (now.text?.trim() !== wish) return now;
      return answer.ok ? NOTHING : { text: now.text, problem: answer.problem };
    });
  };
  const ask = problem?.errors?.find((e) => e.ask === "inches");
  return (
    <span className="reading" data-tone={tone} data-wrong={problem ? true : undefined}>
      <span className="reading-box">
        <input
          ref={input}
          value={shown}
          placeholder="reads …"
          aria-label={`${label}, should be ${expected.spoken}`}
          aria-invalid={problem ? true : undefined}
          onChange={(e) => setTyping({ text: e.target.value, problem })}
          onFocus={onFocus}
          onBlur={() => send()}
          onKeyDown={(e) => {
            if (e.key === "Enter") {
              e.preventDefault();
              send();
            }
            if (e.key === "Escape") setTyping(NOTHING);
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
