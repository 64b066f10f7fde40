import { useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { Link, useNavigate } from "react-router";
import { type Answer, answered, api } from "../api/call";
import { LIST } from "../api/documents";
import type { Act, Problem, Project } from "../api/types";

const PANEL = "z-40 w-64 border-2 border-ink bg-paper p-3 text-ink shadow-lg";
const UNITS = { mm: "millimetres", in: "inches" } as const;

/** Units and the tape's graduation: switching moves nothing. */
export function UnitMenu({
  project,
  onAct,
}: {
  project: Project;
  onAct: (acts: Act[]) => Promise<Problem | null>;
}) {
  const choose = (path: string, value: string) => {
    if (path === "project.unit") localStorage.setItem("unit", value);
    onAct([{ op: "choose", path, value }]);
  };
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet-button">
        {UNITS[project.unit]}, by {project.graduation} <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={6} aria-label="Units" className={PANEL}>
          <Choice
            name="Units"
            options={[
              ["mm", "millimetres"],
              ["in", "inches"],
            ]}
            chosen={project.unit}
            onChoose={(value) => choose("project.unit", value)}
          />
          <Choice
            name="Your tape shows"
            options={project.graduations.map((g) => [g, `${g} ${project.unit}`])}
            chosen={project.graduation}
            onChoose={(value) => choose("project.graduation", value)}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

type ChoiceProps = {
  name: string;
  options: [string, string][];
  chosen: string;
  onChoose: (value: string) => void;
};

function Choice({ name, options, chosen, onChoose }: ChoiceProps) {
  return (
    <div className="py-1.5">
      <div className="mb-1">{name}</div>
      {/* biome-ignore lint/a11y/useSemanticElements: a group of buttons, each a choice made at once */}
      <div role="group" aria-label={name} className="flex flex-wrap gap-1.5">
        {options.map(([value, label]) => (
          <button
            key={value}
            type="button"
            className="plain-button"
            aria-pressed={value === chosen}
            onClick={() => value !== chosen && onChoose(value)}
          >
            {label}
          </button>
        ))}
      </div>
    </div>
  );
}

/** What can be done with the project as a whole. */
export function ProjectMenu({
  project,
  onProblem,
}: {
  project: Project;
  onProblem: (problem: Problem) => void;
}) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const path = { project_id: project.id };
  const url = `/api/projects/${project.id}`;
  const opened = (answer: Answer<Project>) =>
    answer.ok ? navigate(`/project/${answer.data.id}`) : onProblem(answer.problem);
  const item = "quiet-button block w-full text-left";
  return (
    <Popover.Root>
      <Popover.Trigger className="quiet-button">
        Project <span aria-hidden="true">▾</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="end" sideOffset={6} aria-label="Project" className={PANEL}>
          <Link className={item} to={`/project/${project.id}/cut-list`}>
            Cut list to print
          </Link>
          <a className={item} href={`${url}/cut-list.csv`} download>
            Save the cut list as CSV
          </a>
          <a className={item} href={`${url}/file`} download>
            Save the project as a file
          </a>
          <button
            type="button"
            className={item}
            onClick={async () =>
              opened(
                await answered(
                  api.POST("/api/projects/{project_id}/duplicate", { params: { path }, body: {} }),
                ),
              )
            }
          >
            Duplicate
          </button>
          <button
            type="button"
            className={item}
            onClick={async () =>
              opened(
                await answered(
                  api.POST("/api/projects/{project_id}/variant", { params: { path }, body: {} }),
                ),
              )
            }
          >
            Duplicate as a variant
          </button>
          <Link className={item} to={`/project/${project.id}/rescale`}>
            At another size
          </Link>
          <Link className={item} to={`/project/${project.id}/compare/${project.variant_of ?? "before"}`}>
            {project.variant_of ? "Compare with the original" : "What the last change did"}
          </Link>
          <button
            type="button"
            className={item}
            onClick={async () => {
              const answer = await answered(
                api.DELETE("/api/projects/{project_id}", { params: { path }, body: {} }),
              );
              client.removeQueries({ queryKey: LIST });
              if (answer.ok) navigate("/", { state: { deleted: { id: project.id, name: project.name } } });
              else onProblem(answer.problem);
            }}
          >
            Delete
          </button>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
