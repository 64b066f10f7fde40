import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { fetched } from "../api/call";
import type { Comparison, ProjectList } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Mark } from "../ui/Mark";
import { Sign } from "../ui/Sign";

const PAD = { left: 24, right: 24, top: 20, bottom: 20 };

/** Two projects side by side, or one before and after its last change: drawn over each other, and what differs. */
export function ComparePage() {
  const { id = "", other = "" } = useParams();
  const navigate = useNavigate();
  const url = `/api/projects/${id}/compare/${other}`;
  const query = useQuery({
    queryKey: [url],
    queryFn: () => fetched<Comparison>(url),
    refetchOnMount: "always",
  });
  const list = useQuery({
    queryKey: ["/api/projects"],
    queryFn: () => fetched<ProjectList>("/api/projects"),
  });
  const [chosen, setChosen] = useState("");
  const [over, setOver] = useState(true);
  const both = query.data;
  useEffect(() => {
    document.title = both ? `${both.sides.map((s) => s.name).join(" and ")} compared` : "Compare";
  }, [both]);
  if (query.isError) return <p className="p-6">{query.error.message}</p>;
  if (!both) return <p className="p-6">Comparing…</p>;

  const pair = both.views.find((v) => v.id === chosen) ?? both.views[0];
  const groups = [...new Set(both.differences.map((d) => d.group))];
  const projects = list.data?.projects ?? [];
  const kind = projects.find((p) => p.id === id)?.kind;
  const others = projects.filter((p) => p.id !== id && p.kind === kind);
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink bg-paper px-4 py-2">
        <Link to="/" className="flex items-center gap-2" title="All projects">
          <Mark />
          <span className="text-[18px] font-semibold">Fennup</span>
        </Link>
        <Link className="plain-button" to={`/project/${id}`}>
          Back to the drawing
        </Link>
        <label className="ml-auto flex items-center gap-2">
          Beside it
          <select
            className="min-h-10 max-w-64 border border-ink bg-paper px-2"
            value={other}
            onChange={(event) => navigate(`/project/${id}/compare/${event.target.value}`, { replace: true })}
          >
            <option value="before">itself, before the last change</option>
            {others.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
      </header>
      <div className="flex min-h-0 flex-1 max-lg:flex-col">
        <main className="sheet flex min-w-0 flex-1 flex-col px-6 py-4">
          <h1 className="text-[24px]">
            {both.sides[0]?.name} <span className="text-ink-2">and</span> {both.sides[1]?.name}
          </h1>
          <div className="my-2 flex flex-wrap gap-x-6 gap-y-2">
            {/* biome-ignore lint/a11y/useSemanticElements: buttons, one pressed */}
            <div role="group" aria-label="View" className="flex">
              {both.views.map((v) => (
                <button
                  key={v.id}
                  type="button"
                  className="plain-button"
                  aria-pressed={v === pair}
                  onClick={() => setChosen(v.id)}
                >
                  {v.short}
                </button>
              ))}
            </div>
            {/* biome-ignore lint/a11y/useSemanticElements: buttons, one pressed */}
            <div role="group" aria-label="Drawn" className="flex">
              {[true, false].map((on) => (
                <button
                  key={String(on)}
                  type="button"
                  className="plain-button"
                  aria-pressed={over === on}
                  onClick={() => setOver(on)}
                >
                  {on ? "One over the other" : "Side by side"}
                </button>
              ))}
            </div>
          </div>
          {!pair && <p>They have no view in common.</p>}
          {pair && over && (
            <>
              <p className="text-ink-2">
                Solid: {both.sides[0]?.name}. Dashed: {both.sides[1]?.name}.
              </p>
              <Drawing
                key={pair.id}
                view={pair.over}
                label={`${pair.title}, one over the other`}
                pad={PAD}
                className="min-h-[340px] flex-1 lg:min-h-0"
              />
            </>
          )}
          {pair && !over && (
            <div className="grid min-h-0 flex-1 gap-4 sm:grid-cols-2">
              {pair.alone.map((view, i) => (
                <figure key={both.sides[i]?.name} className="flex min-h-[300px] flex-col lg:min-h-0">
                  <Drawing
                    view={view}
                    label={`${both.sides[i]?.name}: ${pair.title}`}
                    pad={PAD}
                    className="min-h-0 flex-1"
                  />
                  <figcaption className="text-center font-medium">{both.sides[i]?.name}</figcaption>
                </figure>
              ))}
            </div>
          )}
          <ul className="mt-2">
            {both.sides.map((side) => (
              <li key={side.name} className="flex items-start gap-2">
                <Sign
                  is={side.closing.tone}
                  className={side.closing.tone === "closes" ? "text-go" : "text-warn"}
                />
                <span>
                  <span className="font-medium">{side.name}:</span> {side.closing.headline}{" "}
                  {side.closing.detail}
                </span>
              </li>
            ))}
          </ul>
        </main>
        <aside
          className="w-full border-l border-line bg-paper p-5 lg:w-[480px] lg:overflow-y-auto"
          aria-label="What differs"
        >
          <h2 className="text-[20px]">What differs</h2>
          {both.differences.length === 0 && <p>Nothing: they are alike.</p>}
          {groups.map((group) => (
            <table key={group} className="mt-3 w-full table-fixed border-collapse text-left break-words">
              <caption className="text-left text-[17px] font-semibold">{group}</caption>
              <thead>
                <tr className="border-b border-ink text-ink-2">
                  <th scope="col" className="w-2/5 py-1 pr-3 font-medium">
                    <span className="sr-only">What</span>
                  </th>
                  {both.sides.map((side) => (
                    <th key={side.name} scope="col" className="py-1 pr-3 font-medium">
                      {side.name}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {both.differences
                  .filter((d) => d.group === group)
                  .map((d) => (
                    <tr key={d.label} className="border-b border-line align-top">
                      <th scope="row" className="py-1.5 pr-3 font-normal">
                        {d.label}
                      </th>
                      <td className="py-1.5 pr-3 font-medium">{d.a}</td>
                      <td className="py-1.5 font-medium">{d.b}</td>
                    </tr>
                  ))}
              </tbody>
            </table>
          ))}
        </aside>
      </div>
    </div>
  );
}
