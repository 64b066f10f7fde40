import { useState } from "react";
import { testSetting } from "../api/saw";
import type { Problem, SawTest, Step, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Choice, Choices } from "../ui/Choices";

type Props = { step: Step; workshop: Held<Workshop>; onTested: () => void };
type How = SawTest["how"];

/** How a setting can be tried, and what is typed then. */
const HOWS: {
  how: How;
  name: string;
  tell: (sides: number) => string;
  fields: (sides: number) => string[];
}[] = [
  {
    how: "corner",
    name: "one corner",
    tell: () => "Two scraps cut so, held together: what does the corner read?",
    fields: () => ["The corner"],
  },
  {
    how: "ring",
    name: "a whole ring",
    tell: (sides) =>
      `${sides} scraps that close up: what does each corner read? The error adds up, so this shows it finest.`,
    fields: (sides) => Array.from({ length: sides }, (_, i) => `Corner ${i + 1}`),
  },
  {
    how: "gauge",
    name: "with a gauge",
    tell: () => "What does the gauge read at the cut, from square?",
    fields: () => ["The gauge"],
  },
  {
    how: "rolled",
    name: "board rolled over",
    tell: () =>
      "At square: cut, roll the board over, the other edge to the fence, and cut a strip off. How wide is it at the fence, and near you?",
    fields: () => ["At the fence", "Near you", "Over a width of"],
  },
];

/** What a test cut read: from it follows the scale's error at that setting, and what to dial. */
export function TestForm({ step, workshop, onTested }: Props) {
  const [movement, setMovement] = useState<"swing" | "tilt">("swing");
  const [how, setHow] = useState<How>("corner");
  const [typed, setTyped] = useState<string[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const movements = step.tests;
  const test = movements.find((one) => one.movement === movement) ?? movements[0];
  if (!test) return null;
  const offered = HOWS.filter((one) => test.hows.includes(one.how));
  const chosen = offered.find((one) => one.how === how) ?? offered[0];
  if (!chosen) return null;
  const fields = chosen.fields(test.sides);
  const send = async () => {
    const readings = fields.map((_, i) => typed[i] ?? "");
    const across = chosen.how === "rolled" ? (readings.pop() ?? "") : "";
    const answer = await testSetting({
      version: workshop.saved?.version ?? 0,
      tool: step.tool_id,
      movement: test.movement,
      at_deg: test.at_deg,
      how: chosen.how,
      readings,
      across,
    });
    setProblem(answer.ok ? null : answer.problem);
    setSaid(answer.ok ? `${answer.data.found} ${answer.data.dial}` : null);
    if (answer.ok) onTested();
  };
  const another = (change: () => void) => {
    change();
    setTyped([]);
    setProblem(null);
  };
  return (
    <details className="mt-3 border-t border-line pt-2" open={step.test.length > 0}>
      <summary className="min-h-10 text-[18px] font-semibold">Test: what did the scrap read?</summary>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          send();
        }}
      >
        {movements.length > 1 && (
          <Choices label="Which scale">
            {movements.map((one) => (
              <Choice
                key={one.movement}
                pressed={one.movement === test.movement}
                onChoose={() => another(() => setMovement(one.movement))}
              >
                {one.label}
              </Choice>
            ))}
          </Choices>
        )}
        <Choices label="How it is tested" className="mt-1.5 flex flex-wrap gap-1.5">
          {offered.map((one) => (
            <Choice
              key={one.how}
              pressed={one.how === chosen.how}
              onChoose={() => another(() => setHow(one.how))}
            >
              {one.name}
            </Choice>
          ))}
        </Choices>
        <p className="mt-2 text-[15px] text-ink-2">{chosen.tell(test.sides)}</p>
        {fields.map((label, i) => (
          <label key={label} className="flex items-center justify-between gap-3 py-1">
            <span>{label}</span>
            <input
              className="figure min-h-10 w-32 rounded-[3px] border border-line bg-paper px-2 aria-[invalid=true]:border-2 aria-[invalid=true]:border-cut"
              aria-invalid={!!problem?.errors?.some((e) => e.path.startsWith("readings"))}
              value={typed[i] ?? ""}
              onChange={(event) =>
                setTyped(fields.map((_, k) => (k === i ? event.target.value : (typed[k] ?? ""))))
              }
            />
          </label>
        ))}
        {problem && (
          <p role="alert" className="font-medium text-cut">
            {problem.detail}
          </p>
        )}
        {said && (
          <p role="status" className="font-medium">
            {said}
          </p>
        )}
        <button type="submit" className="plain-button mt-1">
          Keep it with the tool
        </button>
      </form>
    </details>
  );
}
