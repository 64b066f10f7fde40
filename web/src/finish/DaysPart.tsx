import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import type { Answer } from "../api/call";
import { projectKey } from "../api/documents";
import { askWeather, didStep, takeStepBack } from "../api/finish";
import type { Act, Day, DayTask, Finish, Problem, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { Reminder } from "../ui/Reminder";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";
import { Care, Controls, SaidLines, useActs } from "./parts";

type Props = {
  project: string;
  finish: Finish;
  held: Held<Finish>;
  onProblem: (problem: Problem | null) => void;
};

/** The plan as a strip of days: what is done when, what dries meanwhile, which days are crossed out. */
export function DaysSheet({ finish, held, onProblem }: Omit<Props, "project">) {
  const { days } = finish;
  const act = useActs({ held, onProblem });
  const [from, to] = hoursSeen(days.strip);
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <label className="flex items-center gap-2">
          <span>Needed on</span>
          <input
            type="date"
            className="min-h-10 rounded-[3px] border border-line bg-paper px-2"
            value={days.needed}
            onChange={(event) => act([{ op: "choose", path: "needed", value: event.target.value || null }])}
          />
        </label>
        <Controls controls={[days.needed_at]} held={held} onProblem={onProblem} />
      </div>
      <div role="status">
        <h2 className={`mt-2 flex items-start gap-2 text-[21px] ${INK[days.tone]}`}>
          {days.tone !== "none" && <Sign is={SIGN[days.tone]} />}
          {days.headline}
        </h2>
      </div>
      {days.refused && (
        <p role="alert" className="mt-1 flex items-start gap-2 font-medium text-warn">
          <Sign is="warning" />
          {days.refused}
        </p>
      )}
      {days.strip.length > 0 && (
        <ol className="days mt-2" aria-label="Day by day">
          <li className="day-row" aria-hidden="true">
            <span />
            <span className="day-hours">
              {ticks(from, to).map((hour) => (
                <span key={hour} style={{ left: `${(100 * (hour - from)) / (to - from)}%` }}>
                  {hour}
                </span>
              ))}
            </span>
            <span />
          </li>
          {days.strip.map((day) => (
            <DayRow key={day.day} day={day} from={from} to={to} onAct={act} />
          ))}
        </ol>
      )}
    </>
  );
}

function DayRow({
  day,
  from,
  to,
  onAct,
}: {
  day: Day;
  from: number;
  to: number;
  onAct: (acts: Act[]) => void;
}) {
  const place = (a: number, b: number) => ({
    left: `${(100 * (Math.max(a, from) - from)) / (to - from)}%`,
    width: `${(100 * (Math.min(b, to) - Math.max(a, from))) / (to - from)}%`,
  });
  const seen = day.spans.filter((span) => span.to_h > from && span.from_h < to);
  const work = day.spans.filter((span) => span.kind === "work");
  const drying = day.spans.filter((span) => span.kind === "wait");
  return (
    <li className="day-row" data-today={day.today} data-away={day.away}>
      <span className="day-label">
        {day.label}
        {day.today && <span className="block text-[15px]">today</span>}
      </span>
      <span>
        <span className="day-bar" aria-hidden="true">
          {!day.away &&
            day.free
              .filter(([a, b]) => b > from && a < to)
              .map(([a, b]) => <span key={a} className="day-free" style={place(a, b)} />)}
          {seen.map((span) => (
            <span
              key={span.task + span.kind + span.from_h}
              className={`day-${span.kind}`}
              data-done={span.done}
              data-late={span.late}
              style={place(span.from_h, span.to_h)}
            />
          ))}
        </span>
        <span className="day-said">
          {day.away && "Crossed out. "}
          {work
            .map(
              (span) =>
                `${span.name} ${clock(span.from_h)} to ${clock(span.to_h)}${span.done ? ", done" : span.late ? ", late" : ""}`,
            )
            .join(" · ")}
          {work.length === 0 && drying.length > 0 && !day.away && `${drying[0]?.name} waits`}
          {day.weather && (
            <span className={day.unfit ? "text-warn" : "text-ink-2"}>
              {work.length > 0 || drying.length > 0 || day.away ? " · " : ""}
              {day.weather}
              {day.unfit ? ", no day for a coat outdoors" : ""}
            </span>
          )}
        </span>
      </span>
      <button
        type="button"
        className="plain-button"
        aria-pressed={day.away}
        onClick={() => onAct(day.cross as Act[])}
      >
        {day.away ? "Free again" : "Cross out"}
        <span className="sr-only">: {day.label}</span>
      </button>
    </li>
  );
}

const clock = (hour: number) => {
  const minutes = Math.round(hour * 60);
  return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, "0")}`;
};

/** From an hour before the first free one to an hour after the last. */
function hoursSeen(strip: Day[]): [number, number] {
  const free = strip.flatMap((day) => day.free.flat());
  const work = strip.flatMap((day) =>
    day.spans.filter((s) => s.kind === "work").flatMap((s) => [s.from_h, s.to_h]),
  );
  const all = [...free, ...work];
  if (all.length === 0) return [0, 24];
  return [Math.max(0, Math.floor(Math.min(...all)) - 1), Math.min(24, Math.ceil(Math.max(...all)) + 1)];
}

const ticks = (from: number, to: number) => {
  const step = to - from > 12 ? 4 : 2;
  return Array.from({ length: 13 }, (_, k) => k * step).filter((hour) => hour >= from && hour <= to);
};

/** The steps to tick off, what helps where it is too late, the weather, and when one has time. */
export function DaysPanel({ project, finish, held, tables, onProblem }: Props & { tables: Held<Tables> }) {
  const client = useQueryClient();
  const act = useActs({ held, onProblem });
  const actTables = useActs({ held: tables, onProblem });
  const [asking, setAsking] = useState(false);
  const { days } = finish;
  const told = (answer: Answer<Finish>) => {
    if (answer.ok) client.setQueryData(projectKey(project, "finish"), answer.data);
    onProblem(answer.ok ? null : answer.problem);
  };
  const ask = async () => {
    setAsking(true);
    told(await askWeather(project, finish.version));
    setAsking(false);
  };
  return (
    <>
      {days.said.length > 0 && <SaidLines lines={days.said} label="As it stands" />}
      {days.ways.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">What would help</h2>
          <ol>
            {days.ways.map((way) => (
              <li key={way.title} className="border-b border-line py-2">
                <h3 className={`flex items-start gap-2 font-semibold ${way.good ? INK.right : ""}`}>
                  {way.good && <Sign is={SIGN.right} />}
                  {way.title}
                </h3>
                <p className="text-[15px]">{way.text}</p>
                {way.acts.length > 0 && (
                  <button type="button" className="plain-button mt-1" onClick={() => act(way.acts as Act[])}>
                    Do that<span className="sr-only">: {way.title}</span>
                  </button>
                )}
              </li>
            ))}
          </ol>
        </section>
      )}
      {days.tasks.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Steps</h2>
          <ol>
            {days.tasks.map((task) => (
              <Step
                key={task.id}
                project={project}
                task={task}
                held={held}
                onProblem={onProblem}
                onDone={async () => told(await didStep(project, task.id))}
                onBack={async () => told(await takeStepBack(project, task.record))}
              />
            ))}
          </ol>
        </section>
      )}
      {days.needed && !days.refused && (
        <a className="plain-button mt-3 inline-block" href={`/api/projects/${project}/finish/dates.ics`}>
          The dates for a calendar
        </a>
      )}
      <section className="mt-4">
        <h2 className="text-[20px]">Weather</h2>
        <Controls controls={days.controls} held={held} onProblem={onProblem} />
        <p className="py-1 text-[15px]">{days.weather}</p>
        <button type="button" className="plain-button" disabled={asking} onClick={ask}>
          {asking ? "Asking…" : "Ask for the weather"}
        </button>
      </section>
      <section className="mt-4">
        <h2 className="text-[20px]">Free hours every week</h2>
        <p className="text-[15px] text-ink-2">As 18-20, or 9-12, 14-17:30. Nothing where there is no time.</p>
        {days.week.map(([name, text, path]) => (
          <TextField
            key={path}
            label={name}
            value={text}
            onText={(typed) => actTables([{ op: "type", path, text: typed, inches_meant: false }])}
          />
        ))}
      </section>
      <Care care={days.care} />
    </>
  );
}

type StepProps = Pick<Props, "project" | "held" | "onProblem"> & {
  task: DayTask;
  onDone: () => void;
  onBack: () => void;
};

function Step({ project, task, held, onProblem, onDone, onBack }: StepProps) {
  return (
    <li className="border-b border-line py-1.5">
      <Reminder project={project} reminder={task.reminder} />
      <Controls controls={[task.hours]} held={held} onProblem={onProblem} />
      <div className="flex items-center justify-between gap-2 text-[15px]">
        <span className={task.late ? INK.near : task.done ? INK.right : ""}>
          {task.done && <Sign is={SIGN.right} />}
          {task.late && !task.done && <Sign is="warning" />} {task.done || task.when}
          {task.late && !task.done ? ": late" : ""}
          {task.waits && (
            <span className="block text-ink-2">
              {task.waits}
              {task.ready && !task.done ? `, until ${task.ready}` : ""}
            </span>
          )}
        </span>
        {task.done ? (
          <button type="button" className="plain-button shrink-0" onClick={onBack}>
            Not done<span className="sr-only">: {task.name}</span>
          </button>
        ) : (
          <button type="button" className="plain-button shrink-0" onClick={onDone}>
            Done<span className="sr-only">: {task.name}</span>
          </button>
        )}
      </div>
    </li>
  );
}
