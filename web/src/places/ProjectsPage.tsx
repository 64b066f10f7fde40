import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Toolbar } from "radix-ui";
import { useEffect, useState } from "react";
import { Link, Navigate, useLocation, useNavigate } from "react-router";
import { type Answer, answered, api, fetched, Refused } from "../api/call";
import { LIST, STARTS } from "../api/documents";
import type { ProjectCard } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Mark } from "../ui/Mark";
import { Sign } from "../ui/Sign";
import { Toast } from "../ui/Toast";

type Deleted = { id: string; name: string };

const DELETED = [...LIST, "deleted"];
const of = (project_id: string) => ({ params: { path: { project_id } }, body: {} });
const STAYS_A_LIST = { role: undefined, "aria-orientation": undefined };
const VERDICT = {
  closes: "closes",
  opens: "closes as drawn",
  fails: "does not close",
  unreadable: "cannot be read",
};

/** The first screen: every project as a small true drawing, and what a new one can be. */
export function ProjectsPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const list = useQuery({
    queryKey: LIST,
    queryFn: () => fetched(api.GET("/api/projects")),
    refetchOnMount: "always",
  });
  const starts = useQuery({ queryKey: STARTS, queryFn: () => fetched(api.GET("/api/starts")) });
  const [deleted, setDeleted] = useState<Deleted | null>(
    (useLocation().state as { deleted?: Deleted } | null)?.deleted ?? null,
  );
  const gone = useQuery({
    queryKey: DELETED,
    queryFn: () => fetched(api.GET("/api/projects", { params: { query: { deleted: true } } })),
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    document.title = "Fennup: projects";
  }, []);

  const all = starts.data?.starts ?? [];
  const families = [...new Set(all.map((start) => start.family))];

  const begin = async (start: string) => {
    const unit = localStorage.getItem("unit") === "in" ? "in" : "mm";
    const answer = await answered(api.POST("/api/projects", { body: { start, unit } }));
    if (answer.ok) navigate(`/project/${answer.data.id}`);
    else setTrouble(answer.problem.detail);
  };
  const changed = (answer: Answer<unknown>) => {
    setTrouble(answer.ok ? null : answer.problem.detail);
    client.invalidateQueries({ queryKey: LIST });
    return answer.ok;
  };
  const duplicate = async (id: string) =>
    changed(await answered(api.POST("/api/projects/{project_id}/duplicate", of(id))));
  const remove = async (project: ProjectCard) => {
    if (changed(await answered(api.DELETE("/api/projects/{project_id}", of(project.id)))))
      setDeleted(project);
  };
  const restore = async (id: string) => {
    changed(await answered(api.POST("/api/projects/{project_id}/restore", of(id))));
    setDeleted(null);
  };

  if (list.error instanceof Refused && list.error.problem.status === 401) return <Navigate to="/pair" />;
  const examples = list.data?.projects.filter((project) => project.example).length ?? 0;
  const removeExamples = async () =>
    changed(await answered(api.POST("/api/projects/remove-examples", { body: {} })));
  const backUp = async () => {
    const answer = await answered(api.POST("/api/backup", { body: {} }));
    if (changed(answer) && answer.ok) setSaid(`Copied to ${answer.data.file}`);
  };
  return (
    <div className="min-h-full">
      <header className="flex items-center gap-3 border-b-2 border-ink bg-paper px-6 py-3">
        <Mark />
        <span className="text-[20px] font-semibold">Fennup</span>
        <span className="text-ink-2 max-sm:hidden">Angles, lengths, and proof that it closes</span>
        {!!list.data?.projects.length && (
          <a href="#projects" className="plain-button ml-auto">
            Your projects ({list.data.projects.length})
          </a>
        )}
      </header>
      <main>
        <section aria-labelledby="new" className="sheet border-b border-line px-6 py-5">
          <h1 id="new" className="mb-3 text-[20px]">
            Make something new: what is it?
          </h1>
          {families.map((family) => (
            <div key={family} className="mb-3">
              <h2 className="mb-1.5 text-[16px] font-medium text-ink-2">{family}</h2>
              <Toolbar.Root asChild {...STAYS_A_LIST}>
                <ul className="flex flex-wrap gap-3" aria-label={family}>
                  {all
                    .filter((start) => start.family === family)
                    .map((start) => (
                      <li key={start.code}>
                        <Toolbar.Button
                          onClick={() => begin(start.code)}
                          className="block w-36 border border-line bg-paper p-2 text-left hover:border-ink"
                        >
                          <Drawing view={start.view} label="" className="thumb h-20" />
                          <span className="mt-1 block font-medium">{start.name}</span>
                        </Toolbar.Button>
                      </li>
                    ))}
                </ul>
              </Toolbar.Root>
            </div>
          ))}
        </section>
        <section aria-labelledby="projects" className="px-6 py-5">
          <h2 id="projects" className="mb-3 text-[20px]">
            Your projects
          </h2>
          <Files onBackUp={backUp} />
          {examples > 0 && (
            <p className="mb-3 text-ink-2">
              {examples === 1 ? "One of them is an example" : `${examples} of them are examples`} from a
              made-up boathouse.
              <button type="button" className="quiet-button" onClick={removeExamples}>
                Remove the examples
              </button>
            </p>
          )}
          {(trouble || list.isError) && <p role="alert">{trouble ?? list.error?.message}</p>}
          {said && <p role="status">{said}</p>}
          {list.data?.projects.length === 0 && <p>None yet. Choose above what it is to be.</p>}
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6 gap-y-7">
            {list.data?.projects.map((project) => (
              <li key={project.id}>
                {project.closes === "unreadable" ? (
                  <span className="block text-[18px] font-semibold">{project.name}</span>
                ) : (
                  <Link to={`/project/${project.id}`} className="group block">
                    <Drawing view={project.view} label="" className="sheet h-48" />
                    <span className="mt-2 block text-[18px] font-semibold group-hover:underline">
                      {project.name}
                    </span>
                  </Link>
                )}
                <p className="text-ink-2">
                  {project.example && <span className="font-medium">Example. </span>}
                  {project.facts}
                </p>
                <p className="mt-1 flex items-center gap-1.5">
                  <Sign
                    is={project.closes === "unreadable" ? "warning" : project.closes}
                    className={project.closes === "closes" ? "text-go" : "text-warn"}
                  />
                  <span>{VERDICT[project.closes]}</span>
                </p>
                <p className="mt-1 -ml-2.5 flex">
                  {project.closes !== "unreadable" && (
                    <button type="button" className="quiet-button" onClick={() => duplicate(project.id)}>
                      Duplicate<span className="sr-only"> {project.name}</span>
                    </button>
                  )}
                  <button type="button" className="quiet-button" onClick={() => remove(project)}>
                    Delete<span className="sr-only"> {project.name}</span>
                  </button>
                </p>
              </li>
            ))}
          </ul>
          {!!gone.data?.projects.length && (
            <details className="mt-8 border-t border-line pt-2">
              <summary className="min-h-10 py-2 font-medium">
                Deleted projects ({gone.data.projects.length})
              </summary>
              <ul className="max-w-xl">
                {gone.data.projects.map((project) => (
                  <li
                    key={project.id}
                    className="flex items-center justify-between gap-4 border-b border-line py-1"
                  >
                    <span>
                      {project.name} <span className="text-ink-2">{project.facts}</span>
                    </span>
                    <button type="button" className="plain-button" onClick={() => restore(project.id)}>
                      Restore<span className="sr-only"> {project.name}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      </main>
      {deleted && (
        <Toast
          text={`Deleted ${deleted.name}.`}
          action="Undo"
          onAction={() => restore(deleted.id)}
          onGone={() => setDeleted(null)}
        />
      )}
    </div>
  );
}

/** Everything in and out as open files, and a copy of it all. */
function Files({ onBackUp }: { onBackUp: () => void }) {
  return (
    <p className="mb-3 -ml-2.5 flex flex-wrap items-center">
      <Link className="quiet-button inline-flex items-center" to="/bring-in">
        Bring in a file
      </Link>
      <Link className="quiet-button inline-flex items-center" to="/plan">
        Check a plan
      </Link>
      <Link className="quiet-button inline-flex items-center" to="/mouldings">
        Mouldings, and frames of them
      </Link>
      <a className="quiet-button inline-flex items-center" href="/api/workshop/file" download>
        Save everything as a file
      </a>
      <button type="button" className="quiet-button" onClick={onBackUp}>
        Make a backup copy
      </button>
      <Link className="quiet-button inline-flex items-center" to="/practice">
        Practice
      </Link>
      <Link className="quiet-button inline-flex items-center" to="/devices">
        Phones at the bench
      </Link>
    </p>
  );
}
