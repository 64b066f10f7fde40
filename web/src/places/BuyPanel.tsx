import { useState } from "react";
import { Link } from "react-router";
import { boughtAs } from "../api/boards";
import type { Act, BuyLine, Plan, Project } from "../api/types";
import { FigureText } from "../ui/FigureText";

type Props = { project: Project; plan: Plan; onAct: (acts: Act[]) => void; onChanged: () => void };

/** What to buy, and what the yard had instead. */
export function BuyPanel({ project, plan, onAct, onChanged }: Props) {
  return (
    <>
      <h2 className="text-[20px]">To buy</h2>
      {plan.buy.length === 0 ? (
        <p>Nothing: all of it comes from the rack.</p>
      ) : (
        <>
          <p className="text-ink-2">
            Together <span className="figure text-ink">{plan.total}</span>
          </p>
          <ul className="mt-2">
            {plan.buy.map((line) => (
              <Line key={line.source} line={line} project={project} onAct={onAct} onChanged={onChanged} />
            ))}
          </ul>
        </>
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Link className="go-button inline-flex items-center" to={`/project/${project.id}/to-buy`}>
          The list for the yard
        </Link>
        <a className="plain-button" href={`/api/projects/${project.id}/boards/buy.csv`} download>
          Save as CSV
        </a>
      </div>
    </>
  );
}

function Line({ line, project, onAct, onChanged }: { line: BuyLine } & Omit<Props, "plan">) {
  return (
    <li className="border-t border-line py-2">
      <div className="flex gap-3">
        <span className="figure text-[20px]">{line.count} ×</span>
        <div className="min-w-0 flex-1">
          <div className="font-medium first-letter:uppercase">{line.name}</div>
          <div className="text-[15px] text-ink-2">
            <span className="figure">{line.size_text}</span>, {line.price_text} each
            {line.spares_text && `; ${line.spares_text}`}
          </div>
        </div>
        <span className="figure">{line.sum_text}</span>
      </div>
      <details className="mt-1">
        <summary className="min-h-10 py-2 text-[15px]">It was not as the list says</summary>
        <NotAsListed line={line} project={project} onAct={onAct} onChanged={onChanged} />
      </details>
    </li>
  );
}

/** The yard had none, or it measures something else: plan and project follow. */
export function NotAsListed({ line, project, onAct, onChanged }: { line: BuyLine } & Omit<Props, "plan">) {
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [changed, setChanged] = useState(false);
  const send = async () => {
    const answer = await boughtAs(project.id, project.version, line.thickness_mm, text);
    setWrong(answer.ok ? null : answer.problem.detail);
    setChanged(answer.ok);
    if (!answer.ok) return;
    setText("");
    onChanged();
  };
  return (
    <div className="flex flex-col items-start gap-2 pb-2">
      <button
        type="button"
        className="plain-button"
        onClick={() => onAct([{ op: "choose", path: `sold_out.${line.source}`, value: true }])}
      >
        They had none of it: plan without
      </button>
      <label className="flex flex-wrap items-center gap-2">
        <span>
          <FigureText figure={line.thickness} /> thick by name, really
        </span>
        <input
          className="min-h-10 w-24 rounded-[3px] border border-line bg-paper px-2"
          value={text}
          maxLength={40}
          aria-invalid={wrong !== null}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && text.trim() && send()}
        />
        <button type="button" className="plain-button" disabled={!text.trim()} onClick={send}>
          Change the project to that
        </button>
      </label>
      {wrong && (
        <p role="alert" className="font-medium text-cut">
          {wrong}
        </p>
      )}
      {changed && (
        <p role="status">
          The project follows.{" "}
          <Link className="underline" to={`/project/${project.id}/compare/before`}>
            See what changed
          </Link>
        </p>
      )}
    </div>
  );
}

const TICKED = "ticked";

/** Which lines are ticked on this device: kept here, so that a reload in the yard loses nothing. */
export function useTicks(project: string): [Set<string>, (code: string) => void] {
  const place = `${TICKED} ${project}`;
  const [ticks, setTicks] = useState(() => new Set<string>(JSON.parse(localStorage.getItem(place) ?? "[]")));
  const toggle = (code: string) => {
    const next = new Set(ticks);
    if (!next.delete(code)) next.add(code);
    localStorage.setItem(place, JSON.stringify([...next]));
    setTicks(next);
  };
  return [ticks, toggle];
}
