import { useEffect, useState } from "react";
import { sayHours, writeLog } from "../api/log";
import type { LogStretch } from "../api/types";
import { SaidLines } from "../finish/parts";
import type { LogDoing } from "./LogPlace";

const TICK_MS = 20_000;

/** The clock of the hours: started at a step, stopped, and put right where it was wrong. */
export function ClockPart({ project, log, told }: LogDoing) {
  const { clock } = log;
  const [step, setStep] = useState("cut");
  const write = async (body: Record<string, unknown>) => told(await writeLog(project.id, "clock", body));
  return (
    <section>
      <h2 className="text-[20px]">Hours</h2>
      {clock.running ? (
        <div className="mt-1 flex items-center justify-between gap-3">
          <p role="status">
            {clock.running_step}, <Since since={clock.since} />
          </p>
          <button type="button" className="plain-button" onClick={() => write({ do: "stop" })}>
            Stop the clock
          </button>
        </div>
      ) : (
        <div className="mt-1 flex items-center gap-2">
          <StepChoice step={step} steps={clock.steps} onStep={setStep} label="What you are at" />
          <button
            type="button"
            className="plain-button shrink-0"
            onClick={() => write({ do: "start", step })}
          >
            Start the clock
          </button>
        </div>
      )}
      <details className="mt-1">
        <summary>Hours by step, and hours without the clock</summary>
        <SaidLines lines={clock.planned} label="Hours by step" />
        <Typed project={project.id} steps={clock.steps} told={told} />
        <ul aria-label="Stretches of the clock">
          {clock.stretches.map((stretch) => (
            <Stretch key={stretch.id + stretch.typed} stretch={stretch} project={project.id} told={told} />
          ))}
        </ul>
      </details>
    </section>
  );
}

function StepChoice({
  step,
  steps,
  onStep,
  label,
}: {
  step: string;
  steps: [string, string][];
  onStep: (step: string) => void;
  label: string;
}) {
  return (
    <select
      className="plain-button min-w-0 flex-1"
      aria-label={label}
      value={step}
      onChange={(event) => onStep(event.target.value)}
    >
      {steps.map(([code, name]) => (
        <option key={code} value={code} className="bg-paper text-ink">
          {name}
        </option>
      ))}
    </select>
  );
}

/** For how long it has run, told again now and then. */
function Since({ since }: { since: string }) {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), TICK_MS);
    return () => clearInterval(timer);
  }, []);
  const minutes = Math.max(0, Math.floor((now - Date.parse(since)) / 60_000));
  return (
    <span className="figure">
      {minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`}
    </span>
  );
}

type Told = Pick<LogDoing, "told"> & { project: string };

function Typed({ project, steps, told }: Told & { steps: [string, string][] }) {
  const [step, setStep] = useState("cut");
  const [text, setText] = useState("");
  const [day, setDay] = useState("");
  return (
    <form
      className="my-2 flex flex-wrap items-center gap-2"
      onSubmit={async (event) => {
        event.preventDefault();
        if (told(await sayHours(project, { text, step, day }))) setText("");
      }}
    >
      <StepChoice step={step} steps={steps} onStep={setStep} label="At what" />
      <input
        className="text-input w-24"
        aria-label="How long"
        placeholder="1:30"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <input
        type="date"
        className="text-input"
        aria-label="On which day; today if none"
        value={day}
        onChange={(event) => setDay(event.target.value)}
      />
      <button type="submit" className="plain-button" disabled={!text.trim()}>
        Add
      </button>
    </form>
  );
}

function Stretch({ stretch, project, told }: Told & { stretch: LogStretch }) {
  const [text, setText] = useState(stretch.typed);
  return (
    <li className="flex items-center justify-between gap-3 border-t border-line py-1 text-[15px]">
      <span>{stretch.text}</span>
      {!stretch.by_clock ? (
        <span className="flex items-center gap-1">
          <span className="figure">{stretch.figure}</span>
          <button
            type="button"
            className="quiet-button"
            onClick={async () => told(await writeLog(project, "undone", { takes_back: stretch.id }))}
          >
            Take back<span className="sr-only">: {stretch.text}</span>
          </button>
        </span>
      ) : (
        <input
          className="text-input w-20 text-right"
          aria-label={`Really: ${stretch.text}`}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={async (event) => {
            if (event.key === "Escape") setText(stretch.typed);
            if (event.key === "Enter" && text.trim() && text !== stretch.typed)
              told(await sayHours(project, { text, of: stretch.id, step: stretch.step }));
          }}
        />
      )}
    </li>
  );
}
