import { Popover } from "radix-ui";
import { type KeyboardEvent, useContext, useEffect, useId, useLayoutEffect, useRef, useState } from "react";
import type { Act, Figure, Problem } from "../api/types";
import { FigureText } from "./FigureText";
import { Question, ShownVersion } from "./Question";

type Props = {
  figure: Figure;
  label: string;
  standing: "given" | "suggested" | "derived" | "fixed";
  acts: Act;
  canFree?: boolean;
  onAct: (acts: Act[]) => Promise<Problem | null>;
  onLook: (acts: Act[] | null) => Promise<Problem | null>;
  className?: string;
  words?: string;
};

const STANDS = {
  given: "given",
  suggested: "suggested",
  derived: "follows from the rest",
  fixed: "follows from the rest",
};

type Wish = { text: string | null; steps: number };
/** How the question came up that stands beside the field. */
type Asking = "by Enter" | "leaving";
const NOTHING: Wish = { text: null, steps: 0 };

/** What typing a text into a field, or nudging it, means: the server says which field that is. */
function typed(acts: Act, text: string, inches: boolean): Act {
  return { ...acts, text, inches_meant: inches } as Act;
}

function nudged(acts: Act, steps: number): Act {
  if (acts.op === "give") return { op: "give", measure: acts.measure, steps };
  return { op: "nudge", path: (acts as { path: string }).path, steps };
}

/**
 * A figure edited where it stands: type and Enter, arrow keys for the next graduation, Esc to leave it as it was.
 * A text that cannot be stays, with what is wrong beside it. Enter on a suggested figure or one that follows makes it a given one.
 */
export function FigureField({
  figure,
  label,
  standing,
  acts,
  canFree,
  onAct,
  onLook,
  className = "",
  words,
}: Props) {
  const [{ text, steps }, setWish] = useState(NOTHING);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [asking, setAsking] = useState<Asking | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const messageId = useId();
  // What is wished, known at once: a save that ends must not wait for the next drawing to know what it has saved.
  const wish = useRef(NOTHING);
  const want = (next: Wish) => {
    wish.current = next;
    setWish(next);
  };
  const wanting = () => wish.current.text !== null || wish.current.steps !== 0;

  const wished = ({ text, steps }: Wish, inches = false): Act[] => [
    ...(text !== null ? [typed(acts, text, inches)] : []),
    ...(steps !== 0 ? [nudged(acts, steps)] : []),
  ];

  // biome-ignore lint/correctness/useExhaustiveDependencies: a look belongs to what was just typed, not to its handlers.
  useEffect(() => {
    if (wanting()) onLook(wished(wish.current));
  }, [text, steps]);

  const clear = () => {
    want(NOTHING);
    setProblem(null);
  };

  const leave = () => {
    clear();
    onLook(null);
  };

  // Whatever else was changed meanwhile: what is wrong is asked anew, and is gone if it is so no more.
  const version = useContext(ShownVersion);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another version asks anew.
  useEffect(() => {
    if (problem) onLook(wanting() ? wished(wish.current) : [acts]).then(setProblem);
  }, [version]);

  // One save at a time: Enter and then leaving the field must not nudge twice. What is typed meanwhile stays.
  const saving = useRef(false);
  const again = useRef(false);
  const commit = async ({ inches = false, by = "leaving" }: { inches?: boolean; by?: Asking } = {}) => {
    again.current = saving.current;
    if (
      saving.current ||
      (!wanting() && !((standing === "derived" || standing === "suggested") && acts.op === "give"))
    )
      return;
    saving.current = true;
    const sent = wish.current;
    const wrong = await onAct(wanting() ? wished(sent, inches) : [acts]);
    saving.current = false;
    // A conflict is settled above the page, where what was typed is kept; everything else is settled here.
    if (wrong && wrong.status !== 409) {
      setProblem(wrong);
      setAsking(by);
      return;
    }
    const now = wish.current;
    want({
      text: now.text === sent.text ? null : now.text,
      steps: now.steps === 0 ? 0 : now.steps - sent.steps,
    });
    setProblem(null);
    // What was typed and sent off while the save was on its way is saved now.
    if (again.current && wanting()) commit();
  };

  // A window that is closed or left saves what was typed so far.
  const latest = useRef(() => {});
  latest.current = () => {
    if (wanting() && !problem) commit();
  };
  useEffect(() => {
    const leaving = () => document.visibilityState === "hidden" && latest.current();
    document.addEventListener("visibilitychange", leaving);
    return () => document.removeEventListener("visibilitychange", leaving);
  }, []);

  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === "Enter") {
      event.preventDefault();
      input.current?.select();
      if (problem) setAsking("by Enter");
      else commit({ by: "by Enter" });
    } else if (event.key === "Escape") {
      leave();
      requestAnimationFrame(() => input.current?.select());
    } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      setProblem(null);
      const by = (event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1);
      want({ ...wish.current, steps: wish.current.steps + by });
    } else if (event.key === "Delete" && canFree && acts.op === "give" && text === null) {
      event.preventDefault();
      onAct([{ op: "free", measure: acts.measure }]);
    }
  };

  const asks = problem?.errors?.find((e) => e.ask === "inches");
  const offers = problem?.errors?.flatMap((e) => e.offers ?? []) ?? [];
  const shown = text ?? figure.typed;
  // All that was selected stays so when another figure comes under it, or what is typed next would be added to that.
  const whole = useRef(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is the change of what is shown that loses the selection.
  useLayoutEffect(() => {
    if (whole.current && document.activeElement === input.current) input.current?.select();
  }, [shown]);
  return (
    <Popover.Root open={problem !== null && asking !== null}>
      <Popover.Anchor asChild>
        <span
          className={`field ${className}`}
          data-standing={standing}
          data-typing={problem !== null}
          data-wrong={problem !== null}
        >
          <input
            ref={input}
            type="text"
            inputMode="text"
            autoComplete="off"
            spellCheck={false}
            size={text === null ? 3 : Math.max(3, text.length)}
            maxLength={200}
            aria-label={`${label}, ${STANDS[standing]}, ${figure.spoken}`}
            aria-invalid={problem !== null}
            aria-describedby={problem ? messageId : undefined}
            value={shown}
            onChange={(e) => {
              whole.current = false;
              setProblem(null);
              want({ text: e.target.value, steps: 0 });
            }}
            onFocus={(e) => {
              e.target.select();
              if (problem) setAsking("leaving");
            }}
            onSelect={({ currentTarget: { selectionStart, selectionEnd, value } }) => {
              whole.current = selectionStart === 0 && selectionEnd === value.length && value !== "";
            }}
            onBlur={() => latest.current()}
            onKeyDown={onKey}
          />
          <span className="shown" aria-hidden="true">
            <FigureText figure={figure} />
            {words && <span className="ml-1.5 text-[15px] font-medium">{words}</span>}
          </span>
          {problem && asking && (
            <Question
              id={messageId}
              text={asks?.text ?? problem.detail}
              takesFocus={asking === "by Enter" && (offers.length > 0 || asks !== undefined)}
              field={input}
              onLeave={leave}
              onHide={() => setAsking(null)}
            >
              {offers.map((offer) => (
                <button
                  key={offer.label}
                  type="button"
                  className="plain-button text-left"
                  onFocus={() => onLook(offer.acts as Act[])}
                  onMouseEnter={() => onLook(offer.acts as Act[])}
                  onMouseLeave={() => onLook(null)}
                  onClick={async () => {
                    const wrong = await onAct(offer.acts as Act[]);
                    setProblem(wrong);
                    if (!wrong) clear();
                    input.current?.focus();
                  }}
                >
                  {offer.label}
                </button>
              ))}
              {asks && (
                <button type="button" className="plain-button" onClick={() => commit({ inches: true })}>
                  Yes, inches
                </button>
              )}
            </Question>
          )}
        </span>
      </Popover.Anchor>
    </Popover.Root>
  );
}
