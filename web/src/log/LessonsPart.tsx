import { Link } from "react-router";
import { writeLog } from "../api/log";
import type { Log } from "../api/types";
import type { LogDoing } from "./LogPlace";

/** Everything that was learned, and where it comes back. */
export function LessonsSheet({ log, project, told }: LogDoing) {
  if (log.lessons.length === 0)
    return (
      <p className="mt-3 max-w-[60ch]">
        No lessons yet. Write a note in the story and say what it is a lesson for: it is told again at the
        like step of another project, once.
      </p>
    );
  return (
    <ul className="mt-3 max-w-[860px]" aria-label="Lessons">
      {log.lessons.map((lesson) => (
        <li key={lesson.id} className="flex items-start justify-between gap-4 border-b border-line py-3">
          <div>
            <p>{lesson.text}</p>
            <p className="text-[15px] text-ink-2">
              Comes back: {lesson.back_at}.{" "}
              {lesson.mine ? (
                "From this project."
              ) : (
                <>
                  From{" "}
                  <Link className="underline" to={`/project/${lesson.project}/log`}>
                    {lesson.project_name}
                  </Link>
                  .
                </>
              )}
            </p>
          </div>
          {lesson.mine && (
            <button
              type="button"
              className="quiet-button shrink-0"
              onClick={async () => told(await writeLog(project.id, "undone", { takes_back: lesson.id }))}
            >
              Take back<span className="sr-only">: {lesson.text}</span>
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What goes wrong most often at this workshop's bench, with a round of practice for it. */
export function LessonsPanel({ log }: { log: Log }) {
  return (
    <>
      <h2 className="text-[20px]">What goes wrong most often</h2>
      {log.slips.length === 0 ? (
        <p>Nothing has gone wrong yet, as far as the records tell.</p>
      ) : (
        <ul>
          {log.slips.map((slip) => (
            <li key={slip.name} className="border-b border-line py-2">
              <h3 className="flex justify-between gap-3 font-semibold">
                {slip.name}
                <span className="figure">{slip.count}</span>
              </h3>
              <p className="text-[15px]">{slip.text}</p>
              {slip.level && (
                <Link className="plain-button mt-1 inline-block" to={`/practice?level=${slip.level}`}>
                  A round of practice<span className="sr-only">: {slip.name}</span>
                </Link>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
