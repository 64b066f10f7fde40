import { useCallback, useEffect, useRef, useState } from "react";
import type { Bench, BenchTask, Check } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";
import { Sign } from "../ui/Sign";
import type { State } from "./fold";
import { InstrumentRow } from "./InstrumentRow";
import { graduations, type Meaning, meaning, read, whyNot } from "./lengths";
import type { Instruments } from "./useInstruments";

export type Reading = {
  check: Check;
  value: number;
  typed: string;
  by: "tape" | "typed" | "gauge" | "caliper";
  meaning: Meaning;
};
type Props = {
  bench: Bench;
  task: BenchTask;
  state: State;
  /** Says what there is to keep now, or that there is nothing yet. */
  onReading: (reading: Reading | null) => void;
  /** What is connected: its readings go where the cursor is. */
  instruments: Instruments;
};

const DEG_STEP = 0.1;
/** Far off: read once more; the same again, to a mark, is taken as it is. */
const asksAgain = (means: Meaning | null, value: number | null, first: number | null, step: number) =>
  means?.ask && (first === null || value === null || Math.abs(first - value) > step);
const PAD = { left: 20, right: 20, top: 12, bottom: 12 };

/** Something measured: counted from the tape's nearest mark, or typed; what it means is said at once. */
export function MeasureSheet({ bench, task, state, onReading, instruments }: Props) {
  const [at, setAt] = useState(0);
  const check = bench.checks[task.checks[at] ?? -1];
  const [text, setText] = useState("");
  const [first, setFirst] = useState<number | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const { ruler } = bench;
  const { heard } = instruments;
  const step = check?.unit === "deg" ? DEG_STEP : ruler.graduation_mm;
  const meant = check && text ? read(text, check.unit, ruler) : null;
  const value = meant?.value ?? null;
  const means = check && value !== null ? meaning(check, value, ruler) : null;
  const again = asksAgain(means, value, first, step);

  /** What is typed is told at once, in the same event: Enter right after the last digit keeps that one too. */
  const put = useCallback(
    (next: string, by: Reading["by"], before: number | null = first) => {
      setText(next);
      const typed = check && next ? read(next, check.unit, ruler).value : null;
      const means = check && typed !== null ? meaning(check, typed, ruler) : null;
      const whole = check && typed !== null && means && !asksAgain(means, typed, before, step);
      onReading(whole ? { check, value: typed, typed: next, by, meaning: means } : null);
      field.current?.focus({ preventScroll: true });
    },
    [check, first, ruler, step, onReading],
  );
  const turnTo = (place: number) => {
    setAt(place);
    setText("");
    setFirst(null);
    onReading(null);
    field.current?.focus();
  };
  useEffect(() => field.current?.focus(), []);
  const putIn = useRef(heard?.count ?? 0); // each reading that is heard is put in once
  useEffect(() => {
    if (!heard || !check || heard.count === putIn.current) return;
    putIn.current = heard.count;
    if ((heard.by === "gauge") === (check.unit === "deg")) put(heard.text, heard.by);
  }, [heard, check, put]);

  if (!check) return <p className="p-6 text-[20px]">There is nothing to measure here.</p>;

  const count = (by: number) => {
    const marks = Math.max(0, Math.round((value ?? check.expected) / step) + (text ? by : 0));
    put(
      check.unit === "deg" ? String(Number((marks * DEG_STEP).toFixed(1))) : graduations(marks, ruler),
      "tape",
    );
  };
  const press = (key: string) => put(key === "⌫" ? text.slice(0, -1) : text + key, "typed");
  const keys =
    check.unit === "mm" && ruler.unit === "in"
      ? ["7", "8", "9", "⌫", "4", "5", "6", "/", "1", "2", "3", " ", "0", ".", "′", "″"]
      : ["7", "8", "9", "⌫", "4", "5", "6", ".", "1", "2", "3", "0"];
  const before = state.readings[check.what];
  const mark = check.unit === "deg" ? "a tenth" : "one mark";
  return (
    <section aria-label="Measure" className="bench-measure">
      {task.checks.length > 1 && (
        <div role="tablist" aria-label="What to measure" className="flex">
          {task.checks.map((k, i) => (
            <button
              key={k}
              type="button"
              role="tab"
              aria-selected={i === at}
              className="bench-tab"
              onClick={() => turnTo(i)}
            >
              {TABS[bench.checks[k]?.what ?? "length"]}
              {state.readings[bench.checks[k]?.what ?? ""] && " ✓"}
            </button>
          ))}
        </div>
      )}
      <div className="bench-asked">
        <div className="min-w-0 flex-1">
          <h2 className="text-[19px]">{check.label}</h2>
          <p className="text-[17px] text-ink-2">
            {check.how}
            {check.what !== "spread" && (
              <>
                {" "}
                It should read <FigureText figure={check.figure} className="text-ink" exactly />.
              </>
            )}
            {before && <> Last read: {String(before.body.typed)}.</>}
          </p>
        </div>
        {check.view && (
          <Drawing view={check.view} label="What to measure, lit" className="operator bench-lit" pad={PAD} />
        )}
      </div>
      <InstrumentRow of={instruments} />
      <div className="bench-read">
        <button type="button" className="bench-key" aria-label={`${mark} less`} onClick={() => count(-1)}>
          −
        </button>
        <label className="min-w-0 flex-1">
          <span className="sr-only">
            {check.label}, in {check.unit === "deg" ? "degrees" : ruler.unit}
          </span>
          <input
            ref={field}
            className="bench-input"
            inputMode="none"
            autoComplete="off"
            placeholder={check.unit === "deg" ? "°" : ruler.unit}
            value={text}
            onChange={(event) => put(event.target.value, "typed")}
          />
        </label>
        <button type="button" className="bench-key" aria-label={`${mark} more`} onClick={() => count(1)}>
          +
        </button>
      </div>
      <div role="status" className="bench-verdict" data-verdict={again ? "ask" : means?.verdict}>
        {meant?.wrong && (
          <p>
            {whyNot(text, meant, ruler)}{" "}
            {meant.wrong === "fraction_in_mm" && (
              <button type="button" className="bench-small" onClick={() => put(`${text.trim()}″`, "typed")}>
                Yes, inches
              </button>
            )}
          </p>
        )}
        {means && (
          <p className="flex items-start gap-2">
            <Sign is={means.verdict === "right" ? "closes" : means.verdict === "near" ? "note" : "warning"} />
            <span>
              {again ? (
                <>
                  {means.slip || FAR}{" "}
                  <button
                    type="button"
                    className="bench-small"
                    onClick={() => {
                      setFirst(value);
                      put("", "typed", value);
                    }}
                  >
                    Measure once more
                  </button>
                </>
              ) : (
                <>
                  {first !== null && means.ask ? "Read twice. " : ""}
                  {means.text}
                </>
              )}
            </span>
          </p>
        )}
        {!text && first !== null && <p>Read it once more: the same again is taken as it is.</p>}
        {!text && first === null && <p className="text-ink-2">Count marks with − and +, or type it.</p>}
      </div>
      <fieldset className="bench-keys" aria-label="Keys">
        {keys.map((key) => (
          <button
            key={key}
            type="button"
            className="bench-key"
            aria-label={NAMES[key]}
            onClick={() => press(key)}
          >
            {key === " " ? "␣" : key}
          </button>
        ))}
      </fieldset>
    </section>
  );
}

const FAR = "That is far off. Is it another unit, or another edge?";
const NAMES: Record<string, string> = {
  "⌫": "Delete the last",
  " ": "Space",
  "′": "feet",
  "″": "inches",
  "/": "over",
  ".": "point",
};
const TABS: Record<Check["what"], string> = {
  length: "Length",
  width: "Width",
  face: "Across the face",
  tilt: "The cut's tilt",
  pair: "Swing",
  pair_tilt: "Tilt",
  spread: "Difference",
};
