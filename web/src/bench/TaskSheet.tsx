import { Dialog } from "radix-ui";
import type { Bench, BenchTask, ReminderNote, View } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { MarkLines } from "../places/MarksPanel";
import { FigureText } from "../ui/FigureText";
import { Reminder } from "../ui/Reminder";
import { Sign } from "../ui/Sign";
import { isWrong, type State } from "./fold";
import { amount, meaning } from "./lengths";
import { isChanged } from "./PieceStrip";

type Props = { bench: Bench; task: BenchTask; state: State; last: BenchTask | undefined };
type Told = { reminder: ReminderNote | undefined; onRead: () => void };

const PAD = { left: 14, right: 14, top: 16, bottom: 22 };
const WITH_A_LENGTH = { ...PAD, top: 48 };
const BARE = { left: 14, right: 14, top: 14, bottom: 14 };

/** One task as one stands there: the picture, what is set so large that it is read from two metres, what has changed, what to take care of. */
export function TaskSheet({ bench, task, state, last, reminder, onRead }: Props & Told) {
  const step = bench.steps[task.step];
  if (!step) return null;
  const together = task.doing === "together";
  const views = together ? lit(bench, task) : step.views;
  const [picture, beside] = views;
  const leans = step.sets.some((set) => set.label === "tilt" && set.figure && set.figure.whole !== "0");
  const figures = step.figures.filter((line) => task.work !== "rough" || line.label === task.tag);
  const sets = together ? [] : step.sets;
  const changed = together ? task.again : sinceLast(bench, task, last);
  return (
    <div className="bench-task">
      <div className="bench-picture">
        {picture && (
          <Drawing
            view={called(picture, task.tag)}
            label={`${task.title}: as you stand there`}
            className="operator h-full min-w-0 flex-1"
            pad={picture.dimensions.length ? WITH_A_LENGTH : PAD}
          />
        )}
        {beside && leans && !together && (
          <Drawing
            view={beside}
            label="From the front"
            className="operator h-full w-[27%] max-w-56 border-l border-line"
            pad={BARE}
          />
        )}
      </div>
      <div className="bench-words">
        {(sets.length > 0 || figures.length > 0) && (
          <div className="bench-sets">
            {sets.map((set) => (
              <div key={set.label}>
                <p className="bench-label">{set.label}</p>
                {set.figure && <FigureText figure={set.figure} className="bench-figure" exactly />}
                <p className="bench-to">{set.text}</p>
              </div>
            ))}
            {task.work === "rough"
              ? figures.map((line) => (
                  <div key={line.label}>
                    <p className="bench-label">cut off, at least</p>
                    <FigureText figure={line.figure} className="bench-figure" exactly />
                    <p className="bench-to">{task.tag}</p>
                  </div>
                ))
              : figures.length > 0 && (
                  <div className="bench-lines">
                    <MarkLines lines={figures} />
                  </div>
                )}
          </div>
        )}
        <div className="bench-text">
          <Reminder project={bench.project} reminder={reminder} onRead={onRead} short />
          <Changed bench={bench} task={task} state={state} />
          <LastRead bench={bench} task={task} state={state} />
          {changed && <p className="bench-changed">{changed}</p>}
          {task.doing === "try" && step.test.slice(0, -1).map((text) => <p key={text}>{text}</p>)}
          {task.doing === "step" && step.lies && <p>{step.lies}</p>}
          {step.misses.map((text) => (
            <p key={text} className="flex items-start gap-2 font-medium text-warn">
              <Sign is="warning" />
              {text}
            </p>
          ))}
          {!together && !isWrong(state) && step.mark && <p>{step.mark}</p>}
          {!isWrong(state) && step.notes.map((text) => !together && <p key={text}>{text}</p>)}
          {step.dial && <p className="font-medium">{step.dial}</p>}
          {step.boards && task.work !== "test" && <p className="text-ink-2">{step.boards}</p>}
          {step.cautions.length > 0 && !together && <Caution cautions={step.cautions} />}
        </div>
      </div>
    </div>
  );
}

/** What has changed since what was done last: nothing but the piece, what the next step changes, or everything. */
function sinceLast(bench: Bench, task: BenchTask, last: BenchTask | undefined): string {
  if (!last || task.doing === "try") return "";
  if (last.step === task.step) return last.key === task.key ? "" : task.again;
  const step = bench.steps[task.step];
  const between = bench.steps.slice(last.step + 1, task.step);
  const follows = last.step < task.step && between.every((one) => one.test.length > 0);
  return follows ? (step?.changed ?? "") : step?.sets.length ? SET_ALL : "";
}

const SET_ALL = "You come from another step: set everything as it stands here.";

/** The picture of the step with this piece's name on the wood. */
const called = (view: View, tag: string): View => ({
  ...view,
  marks: view.marks.map((mark) => (mark.text === "KEEP" ? { ...mark, text: `KEEP ${tag}` } : mark)),
});

const lit = (bench: Bench, task: BenchTask): View[] =>
  task.checks.flatMap((k) => (bench.checks[k]?.view ? [bench.checks[k]?.view as View] : []));

/** The caution of this step in full; the others a touch away. */
function Caution({ cautions }: { cautions: string[] }) {
  const [first, ...more] = cautions;
  return (
    <div className="bench-caution">
      <Sign is="warning" className="text-warn" />
      <p className="flex-1">{first}</p>
      {more.length > 0 && (
        <Dialog.Root>
          <Dialog.Trigger className="bench-small">
            +{more.length}
            <span className="sr-only"> more to take care of</span>
          </Dialog.Trigger>
          <Dialog.Portal>
            <Dialog.Overlay className="fixed inset-0 z-40 bg-bar/60" />
            <Dialog.Content
              aria-describedby={undefined}
              className="fixed inset-x-0 bottom-0 z-50 max-h-[85dvh] overflow-y-auto border-t-4 border-warn bg-paper p-5 text-[19px]"
            >
              <Dialog.Title className="text-[22px]">Take care</Dialog.Title>
              <ul className="my-3 list-disc space-y-2 pl-5">
                {cautions.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
              <Dialog.Close className="bench-key w-full">Understood</Dialog.Close>
            </Dialog.Content>
          </Dialog.Portal>
        </Dialog.Root>
      )}
    </div>
  );
}

/** What was read here and was not right, with what to do. */
function LastRead({ bench, task, state }: Omit<Props, "last">) {
  const checks = task.checks.map((k) => bench.checks[k]);
  return checks.map((check) => {
    const body = check && state.readings[check.what]?.body;
    if (!check || !body || body.verdict === "right") return null;
    return (
      <p key={check.what} className="flex items-start gap-2 font-medium text-warn">
        <Sign is="warning" />
        <span>
          Read {String(body.typed)}: {meaning(check, Number(body.measured), bench.ruler).text}
        </span>
      </p>
    );
  });
}

/** What was cut stays cut: where the piece has another size now, what it was and what it is. */
function Changed({ bench, task, state }: Omit<Props, "last">) {
  if (!isChanged(state, task)) return null;
  const planned = (state.cut?.body.planned ?? {}) as Record<string, number>;
  const then = task.checks
    .map((k) => bench.checks[k])
    .filter((check) => check && planned[check.what] !== undefined);
  const say = (value: number, of: "mm" | "deg") => amount(value, of, bench.ruler);
  const lines = then.filter((c) => c && Math.abs((planned[c.what] ?? 0) - c.expected) > 1e-3);
  return (
    <div role="status" className="border-l-4 border-warn pl-3 font-medium text-warn">
      <p>The project has changed since this was cut. What was cut stays cut.</p>
      {lines.map(
        (c) =>
          c && (
            <p key={c.what}>
              {c.label}: cut to {say(planned[c.what] ?? 0, c.unit)}, now {say(c.expected, c.unit)}.
            </p>
          ),
      )}
    </div>
  );
}
