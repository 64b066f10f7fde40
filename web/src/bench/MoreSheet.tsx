import { Tabs } from "radix-ui";
import { Link } from "react-router";
import type { Bench } from "../api/types";
import { Choice, Choices } from "../ui/Choices";
import { statusOf } from "./fold";
import { InstrumentSettings } from "./InstrumentRow";
import { logLines } from "./log";
import type { Held } from "./useBench";
import type { Instruments } from "./useInstruments";

type Props = {
  bench: Bench;
  held: Held;
  awake: boolean;
  instruments: Instruments;
  left: boolean;
  onHand: (hand: "left" | "right") => void;
  onGo: (key: string) => void;
};

const WORDS = { open: "to do", cut: "done", measured: "measured", wrong: "wrong" };

/** All there is to do, what happened, and how this device is set. */
export function MoreSheet(props: Props) {
  const { bench, held, onGo } = props;
  const lines = logLines(bench, held.entries);
  return (
    <Tabs.Root defaultValue="steps" className="flex min-h-0 flex-1 flex-col text-[17px]">
      <Tabs.List aria-label="More" className="flex">
        {[
          ["steps", "All there is to do"],
          ["log", "What happened"],
          ["device", "This device"],
        ].map(([value, name]) => (
          <Tabs.Trigger key={value} value={value as string} className="bench-tab">
            {name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="steps" className="min-h-0 flex-1 overflow-y-auto px-4">
        <ol>
          {bench.tasks.map((task, i) => {
            const status = statusOf(held.states(task.key));
            return (
              <li key={task.key} className="border-b border-line">
                <button
                  type="button"
                  className="flex min-h-14 w-full items-center gap-3 text-left"
                  onClick={() => onGo(task.key)}
                >
                  <span className="figure w-8 text-right text-ink-2">{i + 1}</span>
                  <span className="flex-1">{task.title}</span>
                  <span className={status === "wrong" ? "font-semibold text-cut" : "text-ink-2"}>
                    {WORDS[status]}
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
      </Tabs.Content>
      <Tabs.Content value="log" className="min-h-0 flex-1 overflow-y-auto p-4">
        <p role="status" className="mb-2">
          {held.link.text} {held.unsent > 0 && `${held.unsent} not sent yet.`}
        </p>
        {lines.length === 0 && <p className="text-ink-2">Nothing yet: it writes itself as you work.</p>}
        <ol>
          {lines.map((line) => (
            <li key={line.id} className="flex items-center gap-3 border-b border-line py-2">
              <span className="flex-1">
                <span className="figure text-ink-2">{line.when}</span> {line.text}{" "}
                <span className="text-ink-2">({line.device})</span>
              </span>
              {line.entry && (
                <button
                  type="button"
                  className="bench-small"
                  onClick={() => line.entry && held.takeBack(line.entry)}
                >
                  Take back<span className="sr-only">: {line.text}</span>
                </button>
              )}
            </li>
          ))}
        </ol>
      </Tabs.Content>
      <Tabs.Content value="device" className="min-h-0 flex-1 overflow-y-auto p-4">
        <DeviceSettings {...props} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

function DeviceSettings({ bench, held, awake, instruments, left, onHand }: Props) {
  return (
    <div className="max-w-xl">
      <p>
        {awake
          ? "The screen stays awake while this page is open."
          : "This browser does not keep the screen awake: set the device so that it stays on."}
      </p>
      <label className="my-2 flex flex-wrap items-center gap-3">
        Its name in the log
        <input
          className="min-h-14 min-w-0 flex-1 border-2 border-ink bg-paper px-3"
          maxLength={40}
          value={held.device}
          onChange={(event) => held.rename(event.target.value)}
        />
      </label>
      <p className="mt-3">It is used with</p>
      <Choices label="It is used with" className="my-2 flex gap-2">
        <Choice pressed={!left} className="bench-key flex-1" onChoose={() => onHand("right")}>
          the right hand
        </Choice>
        <Choice pressed={left} className="bench-key flex-1" onChoose={() => onHand("left")}>
          the left hand
        </Choice>
      </Choices>
      <InstrumentSettings of={instruments} />
      <Link to={`/project/${bench.project}/saw`} className="bench-key mt-5 flex items-center justify-center">
        To the Saw place
      </Link>
      <Link
        to={`/practice?project=${bench.project}`}
        className="bench-key mt-2 flex items-center justify-center"
      >
        Practice with these parts
      </Link>
      <Link to="/" className="bench-key mt-2 flex items-center justify-center">
        All projects
      </Link>
    </div>
  );
}
