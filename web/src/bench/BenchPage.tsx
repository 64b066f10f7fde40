import { useCallback, useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import type { Bench, Outcome } from "../api/types";
import { PLACES, Tape } from "../places/Tape";
import { Sign } from "../ui/Sign";
import { useWide } from "../ui/useWide";
import { live } from "./fold";
import { MeasureSheet, type Reading } from "./MeasureSheet";
import { MoreSheet } from "./MoreSheet";
import { PieceStrip } from "./PieceStrip";
import { keepSetting, setting } from "./store";
import { TaskSheet } from "./TaskSheet";
import { type Held, plannedOf, useBench } from "./useBench";
import { useAwake, useInstalled } from "./useDevice";
import { nextOpen, useHere } from "./useHere";
import { useInstruments } from "./useInstruments";
import { WrongSheet } from "./WrongSheet";

type Mode = "task" | "measure" | "wrong" | "more";

/** The bench: one thing to do at a time, beside the saw. */
export function BenchPage() {
  const { id = "" } = useParams();
  const held = useBench(id);
  useInstalled();
  const { bench } = held;
  useEffect(() => {
    document.title = bench ? `${bench.name}: Bench` : "Fennup";
  }, [bench]);
  if (!bench) {
    return (
      <main className="p-6 text-[18px]">
        <p>{held.missing || "Opening…"}</p>
        {held.missing && (
          <Link to="/" className="plain-button mt-3 inline-block">
            All projects
          </Link>
        )}
      </main>
    );
  }
  if (bench.tasks.length === 0) return <Nothing bench={bench} />;
  return <AtTheBench bench={bench} held={held} />;
}

function AtTheBench({ bench, held }: { bench: Bench; held: Held }) {
  const { states } = held;
  const { here, go } = useHere(bench, states);
  const [mode, setMode] = useState<Mode>("task");
  const [reading, setReading] = useState<Reading | null>(null);
  const [justDone, setJustDone] = useState<string | null>(null);
  const [left, setLeft] = useState(false);
  const wide = useWide();
  const awake = useAwake();
  const instruments = useInstruments();
  const navigate = useNavigate();
  useEffect(() => {
    setting("hand").then((hand) => setLeft(hand === "left"));
  }, []);
  const tapped = useRef(Number.NEGATIVE_INFINITY);
  const place = here ? bench.tasks.indexOf(here) : -1;
  const told = here ? bench.reminders[bench.steps[here.step]?.key ?? ""] : undefined;
  const read = held.entries.some((entry) => entry.type === "reminded" && entry.body.lesson === told?.lesson);
  const lesson = read ? undefined : told;

  const goTo = useCallback(
    (key: string) => {
      go(key);
      setMode("task");
      setReading(null);
      setJustDone(null);
    },
    [go],
  );
  /** On to what is open behind, as it is when `done` is done too. */
  const goOn = useCallback(
    (done: string[]) => {
      const next = nextOpen(bench.tasks, place, (key) =>
        done.includes(key) ? { ...states(key), cut: {} as never } : states(key),
      );
      if (next) goTo(next.key);
      else setMode("task");
    },
    [bench.tasks, place, states, goTo],
  );

  const doIt = () => {
    if (!here) return;
    const state = states(here.key);
    if (mode === "measure") {
      if (!reading) return;
      const { check, value, typed, by, meaning } = reading;
      held.add("measured", here, {
        what: check.what,
        planned: check.expected,
        measured: value,
        unit: check.unit,
        typed,
        by,
        verdict: meaning.verdict,
      });
      if (meaning.verdict === "wrong") setMode(here.doing === "step" ? "wrong" : "task");
      else goOn([here.key]);
      return;
    }
    if (performance.now() - tapped.current < BOUNCE_MS) return;
    tapped.current = performance.now();
    if (state.cut) {
      held.takeBack(state.cut);
      return;
    }
    held.add("cut", here, { planned: plannedOf(bench, here) });
    if (here.first || here.doing === "together") setMode("measure");
    else {
      goOn([here.key]);
      setJustDone(here.key);
    }
  };
  const goBack = () => {
    if (mode !== "task") setMode("task");
    else goTo(bench.tasks[Math.max(0, place - 1)]?.key ?? "");
  };
  const choose = (outcome: Outcome) => {
    if (!here) return;
    const measured = reading?.check.unit === "mm" ? reading.value : null;
    held.add("wrong", here, { ...outcome.body, measured });
    if (outcome.way === "keep") goOn([here.key]);
    else {
      const first = bench.tasks.find((task) => (outcome.body.sets as { key: string }[])[0]?.key === task.key);
      goTo(outcome.way === "shave" ? here.key : (first?.key ?? here.key));
    }
  };

  // After Done the piece just made is measured, not the next one, which is not cut yet; of one that somebody went to, that one.
  const made = bench.tasks.find((task) => task.key === justDone);
  const uncut = here !== undefined && !states(here.key).cut;
  const toMeasure = uncut && made && made.checks.length > 0 && states(made.key).cut ? made : here;
  const measurable = (toMeasure?.checks.length ?? 0) > 0;
  const measure = () => {
    if (toMeasure && toMeasure !== here) goTo(toMeasure.key);
    setMode("measure");
  };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = ["INPUT", "SELECT", "TEXTAREA"].includes((event.target as HTMLElement).tagName);
      const onButton =
        (event.target as HTMLElement).tagName === "BUTTON" || (event.target as HTMLElement).tagName === "A";
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector("[role=dialog]")) return;
      if (event.key === "Escape" && mode !== "task") setMode("task");
      else if (event.key === "Enter" && (typing || !onButton)) doIt();
      else if (typing) return;
      else if (event.key === "d" && mode === "task") doIt();
      else if (event.key === "b") goBack();
      else if (event.key === "m" && measurable && mode !== "measure") measure();
      else if (event.key === "w") setMode("wrong");
      else if (mode === "task") {
        const chosen = PLACES[Number(event.key) - 1];
        if (chosen) navigate(`/project/${bench.project}/${chosen.path}`);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  if (!here) return <p className="p-6">Opening…</p>;
  const state = states(here.key);
  const done = bench.tasks.filter((task) => states(task.key).cut).length;
  const next = nextOpen(bench.tasks, place, (key) =>
    key === here.key ? { ...states(key), cut: {} as never } : states(key),
  );
  const all = done === bench.tasks.length;
  const doing = mode === "measure" ? "Keep it" : state.cut ? "Not done after all" : "Done";
  return (
    <div className="bench" data-hand={left ? "left" : "right"}>
      {wide && (
        <header className="flex items-stretch border-b-2 border-ink bg-paper pl-4 pr-3">
          <Tape id={bench.project} place="bench" />
          <span className="tape-rest min-w-6 flex-1" aria-hidden="true" />
        </header>
      )}
      <section aria-label="Where you are" className="bench-bar">
        <h1 className="min-w-0 flex-1">
          <span className="bench-count">
            {place + 1} of {bench.tasks.length}
          </span>{" "}
          <span className="bench-title">{here.title}</span>
          <span className="block truncate text-[17px] font-normal text-bar-ink-2">
            {bench.name} · {link(held, done, bench.tasks.length)}
          </span>
        </h1>
        {wide && (
          <p className="flex items-center gap-2 px-4 text-[17px]">
            <Sign is={bench.closing.tone} className={TONES[bench.closing.tone]} />
            {bench.closing.headline}
          </p>
        )}
        <button
          type="button"
          className="bench-more"
          aria-expanded={mode === "more"}
          onClick={() => setMode(mode === "more" ? "task" : "more")}
        >
          {mode === "more" ? "Close" : "More"}
        </button>
      </section>
      {held.refused.length > 0 && (
        <p role="alert" className="flex items-center gap-3 border-b-2 border-cut px-3 py-1 font-medium">
          <span className="flex-1">The server did not take an entry: {held.refused[0]}</span>
          <button type="button" className="bench-small" onClick={held.understood}>
            Understood
          </button>
        </p>
      )}
      {held.link.is === "old" && (
        <p role="alert" className="border-b-2 border-cut px-3 py-1 font-medium">
          {held.link.text}
        </p>
      )}
      <main className="bench-main" data-state={state.cut ? "done" : "open"}>
        {mode !== "measure" && mode !== "more" && (
          <PieceStrip bench={bench} here={here} states={states} onGo={goTo} />
        )}
        {mode === "measure" ? (
          <MeasureSheet
            key={here.key}
            bench={bench}
            task={here}
            state={state}
            onReading={setReading}
            instruments={instruments}
          />
        ) : mode === "wrong" ? (
          <WrongSheet
            bench={bench}
            task={here}
            states={states}
            reading={reading}
            onChoose={choose}
            onMeasure={() => setMode("measure")}
          />
        ) : mode === "more" ? (
          <MoreSheet
            bench={bench}
            held={held}
            awake={awake}
            instruments={instruments}
            left={left}
            onHand={(hand) => {
              setLeft(hand === "left");
              keepSetting("hand", hand);
            }}
            onGo={goTo}
          />
        ) : (
          <TaskSheet
            bench={bench}
            task={here}
            state={state}
            last={lastDone(bench, held)}
            reminder={lesson}
            onRead={() =>
              lesson && held.add("reminded", { key: "log", fingerprint: "" }, { lesson: lesson.lesson })
            }
          />
        )}
      </main>
      {mode === "task" && (
        <p className="bench-next" role="status">
          {all ? (
            <strong>All {bench.tasks.length} are done.</strong>
          ) : state.cut && next ? (
            <button type="button" className="bench-on" onClick={() => goTo(next.key)}>
              Go on: {next.title}
            </button>
          ) : done === 0 && bench.practice ? (
            <Link className="bench-offer" to={`/practice?project=${bench.project}`}>
              {bench.practice}
            </Link>
          ) : (
            <>Next: {next && next !== here ? next.title : "nothing, this is the last"}</>
          )}
        </p>
      )}
      {mode !== "more" && (
        <nav aria-label="What to do" className="bench-buttons">
          <button
            type="button"
            className="bench-do"
            data-done={mode === "task" && !!state.cut}
            aria-keyshortcuts="Enter d"
            disabled={(mode === "measure" && !reading) || mode === "wrong"}
            onClick={doIt}
          >
            {doing}
            <Key is={mode === "measure" ? "Enter" : "D"} />
          </button>
          <button type="button" className="bench-key" aria-keyshortcuts="b" onClick={goBack}>
            Back
            <Key is="B" />
          </button>
          <button
            type="button"
            className="bench-key"
            aria-keyshortcuts="m"
            disabled={!measurable || mode === "measure"}
            onClick={measure}
          >
            {toMeasure && toMeasure !== here ? `Measure ${toMeasure.tag}` : "Measure"}
            <Key is="M" />
          </button>
          <button
            type="button"
            className="bench-key"
            aria-keyshortcuts="w"
            disabled={mode === "wrong"}
            onClick={() => setMode("wrong")}
          >
            Wrong
            <Key is="W" />
          </button>
        </nav>
      )}
    </div>
  );
}

const TONES = { closes: "text-go-on-bar", opens: "text-warn-on-bar", fails: "text-fail-on-bar" };
/** Two taps nearer than this are one: gloves bounce. */
const BOUNCE_MS = 250;

/** The key that does the same, where there is a keyboard. */
function Key({ is }: { is: string }) {
  return (
    <span aria-hidden="true" className="bench-hint">
      {is}
    </span>
  );
}

/** What was done last, on whatever device. */
function lastDone(bench: Bench, held: Held) {
  const entry = live(held.entries).findLast((one) => one.type === "cut" || one.type === "measured");
  return bench.tasks.find((task) => task.key === entry?.key);
}

const link = (held: Held, done: number, all: number) =>
  held.link.is === "sent" || (held.link.is === "sending" && held.unsent === 0)
    ? `${done} of ${all} done`
    : held.link.is === "full"
      ? `not saved yet: ${held.unsent} kept here`
      : held.link.is === "old"
        ? "an old list"
        : `no connection: ${held.unsent ? `${held.unsent} kept here` : "all is kept here"}`;

function Nothing({ bench }: { bench: Bench }) {
  return (
    <main className="p-6 text-[18px]">
      <h1 className="text-[22px]">{bench.name}</h1>
      <p className="my-3">There is nothing to cut in this project yet.</p>
      <Link to={`/project/${bench.project}`} className="plain-button inline-block">
        To its shape
      </Link>
    </main>
  );
}
