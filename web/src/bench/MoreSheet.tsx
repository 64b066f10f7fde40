import { Link } from "react-router";
import type { Bench } from "../api/types";
import { Choice, Choices } from "../ui/Choices";
import { statusOf } from "./fold";
import { logLines } from "./log";
import type { Held } from "./useBench";

type Props = {
  bench: Bench;
  held: Held;
  awake: boolean;
  left: boolean;
  onHand: (hand: "left" | "right") => void;
  onGo: (key: string) => void;
};

const WORDS = { open: "to do", cut: "done", measured: "measured", wrong: "wrong" };

/** All steps, what happened, and how this device is set. */
export function MoreSheet({ bench, held, awake, left, onHand, onGo }: Props) {
  const lines = logLines(bench, held.entries);
  return (
    <section aria-label="More" className="h-full overflow-y-auto p-4 text-[17px]">
      <p role="status" className="mb-3">
        {held.link.text} {held.unsent > 0 && `${held.unsent} not sent yet.`}
      </p>
      <h2 className="text-[20px]">All there is to do</h2>
      <ol className="mb-4">
        {bench.tasks.map((task, i) => (
          <li key={task.key} className="border-b border-line">
            <button
              type="button"
              className="flex min-h-14 w-full items-center gap-3 text-left"
              onClick={() => onGo(task.key)}
            >
              <span className="figure w-8 text-right text-ink-2">{i + 1}</span>
              <span className="flex-1">{task.title}</span>
              <span
                className={
                  statusOf(held.states(task.key)) === "wrong" ? "font-semibold text-cut" : "text-ink-2"
                }
              >
                {WORDS[statusOf(held.states(task.key))]}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <h2 className="text-[20px]">What happened</h2>
      {lines.length === 0 && <p className="text-ink-2">Nothing yet.</p>}
      <ol className="mb-4">
        {lines.map((line) => (
          <li key={line.id} className="border-b border-line py-2">
            <span className="figure text-ink-2">{line.when}</span> {line.text}{" "}
            <span className="text-ink-2">({line.device})</span>
          </li>
        ))}
      </ol>
      <h2 className="text-[20px]">This device</h2>
      <label className="my-2 flex flex-wrap items-center gap-3">
        Its name in the log
        <input
          className="min-h-14 min-w-0 flex-1 border border-ink bg-paper px-3"
          maxLength={40}
          value={held.device}
          onChange={(event) => held.rename(event.target.value)}
        />
      </label>
      <p className="mt-3">The large button lies under</p>
      <Choices label="The large button lies under" className="my-2 flex gap-2">
        <Choice pressed={!left} className="bench-key flex-1" onChoose={() => onHand("right")}>
          the right hand
        </Choice>
        <Choice pressed={left} className="bench-key flex-1" onChoose={() => onHand("left")}>
          the left hand
        </Choice>
      </Choices>
      <p className="my-3">
        {awake
          ? "The screen stays awake while this page is open."
          : "This browser does not keep the screen awake: set the device so that it stays on."}
      </p>
      <Link to={`/project/${bench.project}/saw`} className="bench-key flex items-center justify-center">
        To the Saw place
      </Link>
      <Link to="/" className="bench-key mt-2 flex items-center justify-center">
        All projects
      </Link>
    </section>
  );
}
