import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { projectKey } from "../api/documents";
import { bringReadings, lookAtReadings } from "../api/incoming";
import type { ReadingsRead } from "../api/types";
import type { LogDoing } from "./LogPlace";

/** A list of readings, as a gauge or a tape with a memory gives it: looked at, then written down at the dry fit. */
export function ReadingsIn({ project, onProblem }: LogDoing) {
  const client = useQueryClient();
  const [text, setText] = useState("");
  const [found, setFound] = useState<ReadingsRead | null>(null);
  const [said, setSaid] = useState("");
  const look = async () => {
    const answer = await lookAtReadings(project.id, text);
    onProblem(answer.ok ? null : answer.problem);
    if (answer.ok) setFound(answer.data);
    setSaid("");
  };
  const lines = found?.lines ?? [];
  const ready = lines.filter((line) => line.key && !line.problem);
  const bring = async () => {
    const answer = await bringReadings(
      project.id,
      ready.map(({ key, value }) => ({ key, value })),
    );
    onProblem(answer.ok ? null : answer.problem);
    if (!answer.ok) return;
    setSaid(`${ready.length} written down. What they mean stands in Fit.`);
    setFound(null);
    setText("");
    client.invalidateQueries({ queryKey: projectKey(project.id) });
  };
  return (
    <section className="mt-4">
      <h2 className="text-[20px]">A list of readings in</h2>
      <textarea
        className="text-input mt-1 h-20 w-full"
        aria-label="A list of readings, one a line: what, and the figure"
        placeholder={"Corner AB to corner CD: 1241.5"}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setFound(null);
        }}
      />
      <button type="button" className="plain-button" disabled={!text.trim()} onClick={look}>
        Look at it
      </button>
      {said && <p role="status">{said}</p>}
      {found && (
        <>
          <ul aria-label="Readings" className="mt-1">
            {lines.map((line, k) => (
              <li key={line.text + line.value} className="border-b border-line py-1 text-[15px]">
                <div className="flex items-center justify-between gap-2">
                  <span>{line.text}</span>
                  <span className="figure">{line.value}</span>
                </div>
                <select
                  className="plain-button w-full"
                  aria-label={`What was read: ${line.text}`}
                  value={line.key}
                  onChange={(event) => {
                    const key = event.target.value;
                    setFound({
                      ...found,
                      lines: lines.map((one, at) =>
                        at === k ? { ...one, key, problem: "", expected: "" } : one,
                      ),
                    });
                  }}
                >
                  <option value="" className="bg-paper text-ink">
                    left out
                  </option>
                  {found.options.map(([key, name]) => (
                    <option key={key} value={key} className="bg-paper text-ink">
                      {name}
                    </option>
                  ))}
                </select>
                {line.expected && <span className="text-ink-2">should be {line.expected}</span>}
                {line.problem && <p className="font-medium">{line.problem}</p>}
              </li>
            ))}
          </ul>
          {found.left.length > 0 && <p className="text-ink-2">No figure in: {found.left.join("; ")}.</p>}
          <button type="button" className="plain-button mt-2" disabled={ready.length === 0} onClick={bring}>
            Write {ready.length} down
          </button>
        </>
      )}
    </section>
  );
}
