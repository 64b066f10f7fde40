import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { Link, useParams } from "react-router";
import { boardsApi } from "../api/boards";
import { projectApi, projectKey } from "../api/documents";
import { finishApi } from "../api/finish";
import { refresh } from "../api/refresh";
import type { Act } from "../api/types";
import { useDocument } from "../api/useDocument";
import { useJob } from "../api/useJob";
import { SaidLines } from "../finish/parts";
import { NotAsListed, useTicks } from "./BuyPanel";

const NOTHING: unknown[][] = [];

/** The list for the yard: large enough to be ticked on a phone in one hand, and on paper. */
export function BuyPage() {
  const { id = "" } = useParams();
  const client = useQueryClient();
  const own = useMemo(() => projectApi(id), [id]);
  const wished = useMemo(() => boardsApi(id), [id]);
  const project = useQuery({ queryKey: own.key, queryFn: own.read });
  const boards = useDocument(wished, NOTHING);
  useJob(boards.saved?.job ?? null, wished.key, true);
  const finish = useQuery({ queryKey: projectKey(id, "finish"), queryFn: finishApi(id).read });
  const besides = finish.data?.buys ?? [];
  const [ticks, toggle] = useTicks(id);
  const plan = boards.saved?.plan;
  const name = project.data?.name;
  useEffect(() => {
    document.title = name ? `${name}: to buy` : "To buy";
  }, [name]);
  if (project.error) return <p className="p-6">{project.error.message}</p>;
  if (!plan || !project.data) return <p className="p-6">Opening…</p>;
  const left = plan.buy.filter((line) => !ticks.has(line.code)).length;
  return (
    <main className="mx-auto max-w-[720px] px-4 py-4">
      <div className="no-print mb-3 flex flex-wrap gap-2">
        <button type="button" className="plain-button" onClick={() => window.print()}>
          Print
        </button>
        <Link className="plain-button" to={`/project/${id}/boards`}>
          Back to the boards
        </Link>
      </div>
      <h1 className="text-[24px]">{name}: to buy</h1>
      <p role="status" className="text-ink-2">
        {plan.buy.length === 0
          ? "Nothing: all of it comes from the rack."
          : `${left ? `${left} of ${plan.buy.length} still to find.` : "Everything is found."} Together ${plan.total}.`}
      </p>
      <ul className="mt-2">
        {plan.buy.map((line) => (
          <li key={line.source} className="border-t border-line py-2">
            <label className="flex min-h-14 items-center gap-4">
              <input
                type="checkbox"
                className="h-8 w-8 shrink-0"
                checked={ticks.has(line.code)}
                onChange={() => toggle(line.code)}
              />
              <span className={`min-w-0 flex-1 ${ticks.has(line.code) ? "text-ink-2 line-through" : ""}`}>
                <span className="block text-[20px] font-semibold">
                  <span className="figure">{line.count}</span> × {line.name}
                </span>
                <span className="figure block text-ink-2">{line.size_text}</span>
                {line.spares_text && <span className="block text-[15px]">{line.spares_text}</span>}
              </span>
              <span className="figure text-[18px]">{line.sum_text}</span>
            </label>
            <details className="no-print">
              <summary className="min-h-11 py-2.5">It was not as the list says</summary>
              <NotAsListed
                line={line}
                project={project.data}
                onAct={(acts: Act[]) => boards.act(acts)}
                onChanged={() => refresh(client, projectKey(id))}
              />
            </details>
          </li>
        ))}
      </ul>
      {besides.length > 0 && (
        <>
          <h2 className="mt-4 text-[20px]">Besides boards</h2>
          <SaidLines lines={besides} label="Besides boards" />
        </>
      )}
      {plan.boards.some((b) => !b.bought) && (
        <>
          <h2 className="mt-4 text-[20px]">There already, on the rack</h2>
          <ul>
            {plan.boards
              .filter((b) => !b.bought)
              .map((b) => (
                <li key={b.id} className="py-1">
                  {b.name} <span className="figure text-ink-2">{b.size_text}</span>
                </li>
              ))}
          </ul>
        </>
      )}
    </main>
  );
}
