import { useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { Link, useNavigate } from "react-router";
import { type Answer, answered, api } from "../api/call";
import { LIST } from "../api/documents";
import type { Act, Problem, Project } from "../api/types";
import { Menu } from "../ui/Menu";

const UNITS = { mm: "millimetres", in: "inches" } as const;

function UnitsNow({ project }: { project: Project }) {
  return (
    <>
      <span className="max-sm:hidden">{`${UNITS[project.unit]}, by ${project.graduation}`}</span>
      <span className="sm:hidden">{`${project.unit}, by ${project.graduation}`}</span>
    </>
  );
}

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
    <Menu name="Units" label={<UnitsNow project={project} />}>
      <OneOf
        name="Units"
        options={[
          ["mm", "millimetres"],
          ["in", "inches"],
        ]}
        chosen={project.unit}
        onChoose={(value) => choose("project.unit", value)}
      />
      <OneOf
        name="Your tape shows"
        options={project.graduations.map((g) => [g, `${g} ${project.unit}`])}
        chosen={project.graduation}
        onChoose={(value) => choose("project.graduation", value)}
      />
    </Menu>
  );
}

type OneOfProps = {
  name: string;
  options: [string, string][];
  chosen: string;
  onChoose: (value: string) => void;
};

function OneOf({ name, options, chosen, onChoose }: OneOfProps) {
  return (
    <DropdownMenu.RadioGroup
      value={chosen}
      onValueChange={(value) => value !== chosen && onChoose(value)}
      aria-label={name}
      className="py-1.5"
    >
      <DropdownMenu.Label className="mb-1">{name}</DropdownMenu.Label>
      <div className="flex flex-wrap gap-1.5">
        {options.map(([value, label]) => (
          <DropdownMenu.RadioItem
            key={value}
            value={value}
            className="plain-button"
            onSelect={(event) => event.preventDefault()}
          >
            {label}
          </DropdownMenu.RadioItem>
        ))}
      </div>
    </DropdownMenu.RadioGroup>
  );
}

const ITEM = "quiet-button block w-full text-left";

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
  const duplicate = async () =>
    opened(await answered(api.POST("/api/projects/{project_id}/duplicate", { params: { path }, body: {} })));
  const variant = async () =>
    opened(await answered(api.POST("/api/projects/{project_id}/variant", { params: { path }, body: {} })));
  const remove = async () => {
    const answer = await answered(api.DELETE("/api/projects/{project_id}", { params: { path }, body: {} }));
    client.removeQueries({ queryKey: LIST });
    if (answer.ok) navigate("/", { state: { deleted: { id: project.id, name: project.name } } });
    else onProblem(answer.problem);
  };
  return (
    <Menu name="Project" label="Project">
      <DropdownMenu.Item asChild className={ITEM}>
        <Link to={`/project/${project.id}/cut-list`}>Cut list to print</Link>
      </DropdownMenu.Item>
      <DropdownMenu.Item asChild className={ITEM}>
        <a href={`${url}/cut-list.csv`} download>
          Save the cut list as CSV
        </a>
      </DropdownMenu.Item>
      <DropdownMenu.Item asChild className={ITEM}>
        <a href={`${url}/file`} download>
          Save the project as a file
        </a>
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={duplicate}>
        Duplicate
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={variant}>
        Duplicate as a variant
      </DropdownMenu.Item>
      <DropdownMenu.Item asChild className={ITEM}>
        <Link to={`/project/${project.id}/rescale`}>At another size</Link>
      </DropdownMenu.Item>
      <DropdownMenu.Item asChild className={ITEM}>
        <Link to={`/project/${project.id}/compare/${project.variant_of ?? "before"}`}>
          {project.variant_of ? "Compare with the original" : "What the last change did"}
        </Link>
      </DropdownMenu.Item>
      <DropdownMenu.Item className={ITEM} onSelect={remove}>
        Delete
      </DropdownMenu.Item>
    </Menu>
  );
}
