import { useState } from "react";
import type { Act, Problem } from "../api/types";

/** The project's name, edited where it stands. */
export function NameField({
  name,
  onAct,
}: {
  name: string;
  onAct: (acts: Act[]) => Promise<Problem | null>;
}) {
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const commit = async () => {
    if (text === null || text === name) {
      setText(null);
      return;
    }
    const wrong = await onAct([{ op: "type", path: "project.name", text, inches_meant: false }]);
    setProblem(wrong);
    if (!wrong) setText(null);
  };
  return (
    <h1 className="text-[24px]">
      <input
        className="w-full rounded-sm border border-transparent bg-transparent px-1 -ml-1 hover:border-line"
        aria-label="Name of the project"
        aria-invalid={problem !== null}
        aria-describedby={problem ? "name-problem" : undefined}
        maxLength={200}
        value={text ?? name}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") commit();
          if (e.key === "Escape") {
            setText(null);
            setProblem(null);
          }
        }}
      />
      {problem && (
        <span id="name-problem" role="alert" className="block text-[16px] font-medium text-cut">
          {problem.detail}
        </span>
      )}
    </h1>
  );
}
