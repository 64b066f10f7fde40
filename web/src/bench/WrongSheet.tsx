import type { Bench, BenchTask, Outcome } from "../api/types";
import type { State } from "./fold";
import type { Reading } from "./MeasureSheet";

type Props = {
  bench: Bench;
  task: BenchTask;
  states: (key: string) => State;
  reading: Reading | null;
  onChoose: (outcome: Outcome) => void;
  onMeasure: () => void;
};

/** What can be done here and now with a piece that is wrong. */
export function WrongSheet({ bench, task, states, reading, onChoose, onMeasure }: Props) {
  const piece = bench.pieces.find((one) => one.key === task.piece);
  const length = reading?.check.what === "length" ? reading.value : null;
  const isShort = reading !== null && reading.value < reading.check.expected;
  const free = (outcome: Outcome) =>
    outcome.open.every((key) => !states(key).cut) &&
    (outcome.needs === null || length === null || length >= outcome.needs);
  const one = (outcomes: Outcome[]) =>
    outcomes.filter(
      (o, i) => o.way !== "use" || outcomes.findIndex((p) => p.way === "use" && p.needs === o.needs) === i,
    );
  const shave = task.shave && !(reading?.check.what === "length" && isShort) ? [task.shave] : [];
  const ways = [...shave, ...one((piece?.outcomes ?? []).filter(free))];
  return (
    <section aria-labelledby="wrong" className="bench-wrong">
      <h2 id="wrong" className="text-[22px] first-letter:uppercase">
        {task.tag ? `${task.tag} is wrong` : "This went wrong"}
      </h2>
      {reading ? (
        <p className="text-[18px]">{reading.meaning.text}</p>
      ) : (
        task.checks.length > 0 && (
          <button type="button" className="bench-way" onClick={onMeasure}>
            <strong>Measure it first</strong>
            <span>Then it is known what can still be made of it.</span>
          </button>
        )
      )}
      {ways.map((outcome) => (
        <button key={outcome.title} type="button" className="bench-way" onClick={() => onChoose(outcome)}>
          <strong>{outcome.title}</strong>
          <span>
            {outcome.text}
            {length === null && outcome.at_least && ` ${outcome.at_least}`}
          </span>
        </button>
      ))}
      {ways.length === 0 && task.doing === "try" && (
        <p className="text-[18px]">
          It was scrap: set it anew as the measurement says, and try two new scraps.
        </p>
      )}
    </section>
  );
}
