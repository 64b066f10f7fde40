import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { projectKey } from "../api/documents";
import { writeLog } from "../api/log";
import type { ReminderNote } from "../api/types";

/** A lesson of another project, told quietly where it belongs until it is read. */
export function Reminder({
  project,
  reminder,
  onRead,
  short = false,
}: {
  project: string;
  reminder: ReminderNote | null | undefined;
  onRead?: () => void;
  /** One line until it is opened. */
  short?: boolean;
}) {
  const client = useQueryClient();
  const [read, setRead] = useState("");
  if (!reminder || read === reminder.lesson) return null;
  const from = <span className="font-semibold">From {reminder.whose}: </span>;
  const done = (
    <button
      type="button"
      className={short ? "bench-small" : "plain-button shrink-0"}
      onClick={async () => {
        setRead(reminder.lesson);
        if (onRead) return onRead();
        await writeLog(project, "reminded", { lesson: reminder.lesson });
        client.invalidateQueries({ queryKey: projectKey(project) });
      }}
    >
      Read
    </button>
  );
  if (short)
    return (
      <details className="reminder-short">
        <summary>
          {from}
          {reminder.text}
        </summary>
        <p>{reminder.text}</p>
        {done}
      </details>
    );
  return (
    <aside aria-label="Learned before" className="reminder">
      <p>
        {from}
        {reminder.text}
      </p>
      {done}
    </aside>
  );
}
