import { useId, useState } from "react";
import { keepPhoto, sayHours, writeLog } from "../api/log";
import type { LogDay, LogStretch } from "../api/types";
import { SaidLines } from "../finish/parts";
import { INK, SIGN } from "../fit/ReadingsPanel";
import { PhotoButton } from "../ui/PhotoButton";
import { Sign } from "../ui/Sign";
import { ClockPart } from "./ClockPart";
import type { LogDoing } from "./LogPlace";

/** The days, the last one first: what the records say, and what somebody wrote. */
export function StorySheet(doing: LogDoing) {
  const { log } = doing;
  if (log.days.length === 0)
    return (
      <p className="mt-3 max-w-[60ch]">
        Nothing has happened yet. What is cut, measured and coated writes itself down here by the day; notes,
        photos and hours are added beside.
      </p>
    );
  return (
    <ol className="mt-2" aria-label="Day by day">
      {log.days.map((day) => (
        <Day key={day.day} day={day} {...doing} />
      ))}
    </ol>
  );
}

function Day({ day, project, told }: LogDoing & { day: LogDay }) {
  return (
    <li className="log-day">
      <h2 className="flex items-baseline justify-between gap-3 border-b-2 border-ink text-[19px]">
        {day.label}
        {day.hours && <span className="figure text-[17px]">{day.hours}</span>}
      </h2>
      <ul>
        {day.lines.map((line) => (
          <li key={line.when + line.text + line.record} className="log-line">
            <span className="figure text-ink-2">{line.when}</span>
            <span className={`log-said ${INK[line.tone ?? "none"]}`}>
              {line.tone && line.tone !== "none" && <Sign is={SIGN[line.tone]} />}
              <span>
                {line.photo && (
                  <a href={`/api/projects/${project.id}/log/photos/${line.photo}`} className="block">
                    <img
                      className="log-photo"
                      src={`/api/projects/${project.id}/log/photos/${line.photo}`}
                      alt={line.text || "Photo"}
                    />
                  </a>
                )}
                {line.text}
                {line.note && <span className="block text-[15px] text-ink-2">{line.note}</span>}
                {line.lesson && (
                  <span className="block text-[15px] font-medium">Comes back: {line.lesson}</span>
                )}
              </span>
            </span>
            {line.record && (
              <button
                type="button"
                className="quiet-button"
                onClick={async () =>
                  told(await writeLog(project.id, "undone", { takes_back: line.record ?? "" }))
                }
              >
                Take back<span className="sr-only">: {line.text}</span>
              </button>
            )}
          </li>
        ))}
      </ul>
    </li>
  );
}

/** The clock, and what can be written down. */
export function StoryPanel(doing: LogDoing) {
  const { log } = doing;
  return (
    <>
      {log.clock.stretches
        .filter((stretch) => stretch.forgotten)
        .map((stretch) => (
          <Forgotten key={stretch.id} stretch={stretch} {...doing} />
        ))}
      <ClockPart {...doing} />
      <Note {...doing} />
      <Photo {...doing} />
      <Batch {...doing} />
      <Use {...doing} />
      {log.due.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Later</h2>
          <SaidLines lines={log.due} label="Later" />
        </section>
      )}
      {log.batches.length > 0 && (
        <section className="mt-4">
          <h2 className="text-[20px]">Made of</h2>
          <SaidLines lines={log.batches} label="Made of" />
        </section>
      )}
    </>
  );
}

function Forgotten({ stretch, project, told }: LogDoing & { stretch: LogStretch }) {
  const [text, setText] = useState("");
  return (
    <form
      className="mb-4 border-l-4 border-warn pl-3"
      onSubmit={async (event) => {
        event.preventDefault();
        told(await sayHours(project.id, { text: text || stretch.guess, of: stretch.id, step: stretch.step }));
      }}
    >
      <h2 className="flex items-center gap-2 text-[19px]">
        <Sign is="warning" className="text-warn" />
        The clock was forgotten
      </h2>
      <p>
        {stretch.text}. How long was it really?
        {stretch.guess && ` The last thing recorded then was after ${stretch.guess}.`}
      </p>
      <div className="mt-1 flex items-center gap-2">
        <input
          className="text-input w-32"
          aria-label={`How long it was: ${stretch.text}`}
          placeholder={stretch.guess || "1:30"}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button type="submit" className="plain-button" disabled={!text && !stretch.guess}>
          {text || !stretch.guess ? "Put it right" : `It was ${stretch.guess}`}
        </button>
      </div>
    </form>
  );
}

function Note({ project, log, told }: LogDoing) {
  const [text, setText] = useState("");
  const [about, setAbout] = useState("");
  const id = useId();
  return (
    <form
      className="mt-4"
      onSubmit={async (event) => {
        event.preventDefault();
        const chosen = log.about.find(([name]) => name === about)?.[1];
        if (told(await writeLog(project.id, "note", { text, about: chosen ?? null }))) {
          setText("");
          setAbout("");
        }
      }}
    >
      <label htmlFor={id} className="text-[20px] font-semibold">
        A note
      </label>
      <textarea
        id={id}
        className="text-input mt-1 h-20 w-full"
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex items-center justify-between gap-2">
        <label className="flex min-w-0 items-center gap-2">
          <span className="shrink-0">A lesson for</span>
          <select
            className="plain-button min-w-0 max-w-52"
            value={about}
            onChange={(event) => setAbout(event.target.value)}
          >
            <option value="" className="bg-paper text-ink">
              nothing: just a note
            </option>
            {log.about.map(([name]) => (
              <option key={name} className="bg-paper text-ink">
                {name}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="plain-button shrink-0" disabled={!text.trim()}>
          Write it down
        </button>
      </div>
      {about && (
        <p className="text-[15px] text-ink-2">It is told again at the like step of another project, once.</p>
      )}
    </form>
  );
}

function Photo({ project, told }: LogDoing) {
  const [text, setText] = useState("");
  const send = async (name: string, content: string) => {
    if (told(await keepPhoto(project.id, name, content, text))) setText("");
  };
  return (
    <section className="mt-4">
      <h2 className="text-[20px]">A photo</h2>
      <div className="mt-1 flex items-center gap-2">
        <input
          className="text-input min-w-0 flex-1"
          aria-label="What is seen on the photo"
          placeholder="What is seen on it"
          maxLength={200}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <PhotoButton onPhoto={send} />
      </div>
      <p className="text-[15px] text-ink-2">
        Kept with the project, made smaller; where it was taken is removed.
      </p>
    </section>
  );
}

function Batch({ project, log, told }: LogDoing) {
  const [said, setSaid] = useState({ what: "wood", name: "", batch: "", much: "" });
  const field = (name: "name" | "batch" | "much", label: string, wide: string) => (
    <input
      className={`text-input ${wide}`}
      aria-label={label}
      placeholder={label}
      maxLength={name === "much" ? 60 : 120}
      value={said[name]}
      onChange={(event) => setSaid({ ...said, [name]: event.target.value })}
    />
  );
  return (
    <details className="mt-4">
      <summary className="text-[20px] font-semibold">What it is made of</summary>
      <form
        className="mt-1 flex flex-wrap gap-2"
        onSubmit={async (event) => {
          event.preventDefault();
          if (told(await writeLog(project.id, "batch", said)))
            setSaid({ ...said, name: "", batch: "", much: "" });
        }}
      >
        <select
          className="plain-button"
          aria-label="What it is"
          value={said.what}
          onChange={(event) => setSaid({ ...said, what: event.target.value })}
        >
          {log.batch_kinds.map(([value, name]) => (
            <option key={value} value={value} className="bg-paper text-ink">
              {name}
            </option>
          ))}
        </select>
        {field("name", "Product", "min-w-60 flex-1")}
        {field("batch", "Batch or colour", "min-w-36 flex-1")}
        {field("much", "How much", "w-24")}
        <button type="submit" className="plain-button" disabled={!said.name.trim()}>
          Write it down
        </button>
      </form>
    </details>
  );
}

function Use({ project, log, told }: LogDoing) {
  const [what, setWhat] = useState("wear");
  const [value, setValue] = useState("");
  const [text, setText] = useState("");
  const unit = log.use_kinds.find(([code]) => code === what)?.[2];
  const figured = Boolean(unit);
  const number = Number(value.replace(",", "."));
  const wrong = figured && (value.trim() === "" || !Number.isFinite(number));
  return (
    <details className="mt-4">
      <summary className="text-[20px] font-semibold">Seen in use</summary>
      <form
        className="mt-1 flex flex-wrap gap-2"
        onSubmit={async (event) => {
          event.preventDefault();
          if (told(await writeLog(project.id, "use", { what, value: figured ? number : null, text }))) {
            setValue("");
            setText("");
          }
        }}
      >
        <select
          className="plain-button"
          aria-label="What was seen"
          value={what}
          onChange={(event) => setWhat(event.target.value)}
        >
          {log.use_kinds.map(([code, name, of]) => (
            <option key={code} value={code} className="bg-paper text-ink">
              {of ? `${name}, ${of}` : name}
            </option>
          ))}
        </select>
        {figured && (
          <input
            className="text-input w-20"
            aria-label="Figure"
            value={value}
            onChange={(event) => setValue(event.target.value)}
          />
        )}
        <input
          className="text-input min-w-44 flex-1"
          aria-label="In words"
          placeholder="In words"
          maxLength={200}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button
          type="submit"
          className="plain-button"
          disabled={wrong || (what !== "coated" && !figured && !text.trim())}
        >
          Write it down
        </button>
      </form>
    </details>
  );
}
