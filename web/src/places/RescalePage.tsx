import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { answered, api, fetched } from "../api/call";
import { projectApi, projectKey } from "../api/documents";
import type { Project, Rescale, Size } from "../api/types";
import { Choice, Choices } from "../ui/Choices";
import { PageHead } from "../ui/PageHead";
import { Compared, Differences } from "./Compared";
import { standsByItself } from "./text";

const WAIT_MS = 250;

/** A value once it has not changed for a moment. */
function useRested<T>(value: T): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), WAIT_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return rested;
}

/** The whole at another size: which size, what stays, and, before anything is changed, everything that would. */
export function RescalePage() {
  const { id = "" } = useParams();
  const own = projectApi(id);
  const query = useQuery({ queryKey: own.key, queryFn: own.read, refetchOnMount: "always" });
  useEffect(() => {
    document.title = query.data ? `${query.data.name}: another size` : "Another size";
  }, [query.data]);
  if (query.isError) return <p className="p-6">{query.error.message}</p>;
  if (!query.data) return <p className="p-6">Opening…</p>;
  return <Rescaling key={id} project={query.data} />;
}

function Rescaling({ project }: { project: Project }) {
  const path = { project_id: project.id };
  const navigate = useNavigate();
  const client = useQueryClient();
  const field = useId();
  const sizes = project.sheet.sizes.filter((size) => size.acts);
  const lengths = sizes.filter((size) => size.figure.unit !== "°");
  const first = lengths.find(standsByItself) ?? lengths[0];
  const [measure, setMeasure] = useState(first?.id ?? "");
  const size = lengths.find((s) => s.id === measure) ?? first;
  const [text, setText] = useState(size?.figure.typed ?? "");
  const [keep, setKeep] = useState<string[]>(
    sizes.filter((s) => standsByItself(s) && s.figure.unit === "°").map((s) => s.id),
  );
  const [levels, setLevels] = useState<Rescale["levels"]>("in_proportion");
  const [rest, setRest] = useState<Rescale["rest"]>("as_it_is");
  const [trouble, setTrouble] = useState<string | null>(null);
  const act = {
    op: "rescale" as const,
    measure,
    text,
    keep: keep.filter((k) => k !== measure),
    levels,
    rest,
  };
  const rested = useRested(JSON.stringify(act));
  const then = useQuery({
    queryKey: projectKey(project.id, "rescale", project.version, rested),
    queryFn: () =>
      fetched(
        api.POST("/api/projects/{project_id}/compare", {
          params: { path },
          body: { acts: [JSON.parse(rested) as typeof act] },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // What was seen last stays while something that cannot be is being typed.
  const good = useRef<typeof then.data>(undefined);
  if (then.isSuccess) good.current = then.data;
  const both = then.data ?? good.current;
  const wrong = trouble ?? then.error?.message ?? null;
  const ready = !wrong && !then.isPlaceholderData && rested === JSON.stringify(act) && then.isSuccess;

  const make = async (variant: boolean) => {
    let [to, version] = [project.id, project.version];
    if (variant) {
      const made = await answered(
        api.POST("/api/projects/{project_id}/variant", { params: { path }, body: {} }),
      );
      if (!made.ok) return setTrouble(made.problem.detail);
      [to, version] = [made.data.id, made.data.version];
    }
    const saving = projectApi(to);
    const done = await saving.act(version, [act]);
    if (!done.ok) return setTrouble(done.problem.detail);
    client.setQueryData(saving.key, done.data);
    navigate(`/project/${to}`);
  };
  const toggle = (id: string) => setKeep(keep.includes(id) ? keep.filter((k) => k !== id) : [...keep, id]);
  const others = sizes.filter((s) => s.id !== measure);
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <PageHead project={project.id} />
      <div className="flex min-h-0 flex-1 max-lg:flex-col-reverse">
        {both ? (
          <Compared both={both} title={`${project.name} at another size`} />
        ) : (
          <main className="sheet flex-1 p-6">
            <h1 className="text-[24px]">{project.name} at another size</h1>
          </main>
        )}
        <aside
          className="w-full border-l border-line bg-paper p-5 lg:w-[480px] lg:overflow-y-auto"
          aria-label="Another size"
        >
          <label className="flex items-center justify-between gap-3">
            <span className="font-medium">Another</span>
            <select
              className="plain-button max-w-72"
              value={measure}
              onChange={(event) => {
                setMeasure(event.target.value);
                setText(lengths.find((s) => s.id === event.target.value)?.figure.typed ?? "");
              }}
            >
              {lengths.map((s) => (
                <option key={s.id} value={s.id} className="bg-paper text-ink">
                  {s.label}
                </option>
              ))}
            </select>
          </label>
          <div className="mt-2 flex items-center justify-between gap-3">
            <label htmlFor={field}>Instead of {told(size)}</label>
            <input
              id={field}
              className="figure w-36 border border-ink bg-paper px-2 py-1.5 text-center text-[18px]"
              value={text}
              aria-invalid={wrong ? true : undefined}
              onChange={(event) => {
                setTrouble(null);
                setText(event.target.value);
              }}
            />
          </div>
          {wrong && (
            <p role="alert" className="mt-2 border-l-4 border-cut pl-3 font-medium">
              {wrong}
            </p>
          )}
          <fieldset className="mt-3 border-t border-line pt-2">
            <legend className="float-left mb-1.5 w-full font-medium">
              Stays as it is{" "}
              <span className="font-normal text-ink-2">(all else in proportion, or follows)</span>
            </legend>
            <Keeps sizes={others.filter(standsByItself)} keep={keep} onToggle={toggle} />
            <details className="mt-1.5" open={others.some((s) => !standsByItself(s) && keep.includes(s.id))}>
              <summary className="py-1 underline decoration-dotted">Sizes that follow now</summary>
              <Keeps sizes={others.filter((s) => !standsByItself(s))} keep={keep} onToggle={toggle} />
            </details>
          </fieldset>
          {project.sheet.has_levels && (
            <Ways
              name="What stands at a height"
              ways={[
                ["in_proportion", "as many as now, in proportion"],
                ["same_steps", "the same steps, as many as fit"],
              ]}
              chosen={levels}
              onChoose={setLevels}
            />
          )}
          <Ways
            name="Boards, spacings and the rest"
            ways={[
              ["as_it_is", "as they are"],
              ["in_proportion", "in proportion"],
            ]}
            chosen={rest}
            onChoose={setRest}
          />
          <div className="mt-4 flex flex-wrap gap-2">
            <button type="button" className="go-button" disabled={!ready} onClick={() => make(false)}>
              Make it this size
            </button>
            <button type="button" className="plain-button" disabled={!ready} onClick={() => make(true)}>
              Make a variant of this size
            </button>
          </div>
          <h2 className="mt-6 text-[20px]">What changes</h2>
          {both && !wrong && <Differences both={both} none="Nothing yet: type another size." />}
        </aside>
      </div>
    </div>
  );
}

/** A size's figure in a sentence. */
function told(size: Size | undefined): string {
  if (!size) return "";
  const { whole, fraction, unit } = size.figure;
  return `${`${whole} ${fraction}`.trim()}${unit === "″" || unit === "°" ? "" : " "}${unit}`;
}

type KeepsProps = { sizes: Size[]; keep: string[]; onToggle: (id: string) => void };

function Keeps({ sizes, keep, onToggle }: KeepsProps) {
  return (
    <div className="clear-both flex flex-wrap gap-1.5">
      {sizes.map((size) => (
        <button
          key={size.id}
          type="button"
          className="plain-button"
          aria-pressed={keep.includes(size.id)}
          onClick={() => onToggle(size.id)}
        >
          {size.label}, {told(size)}
        </button>
      ))}
    </div>
  );
}

type WaysProps<T extends string> = {
  name: string;
  ways: [T, string][];
  chosen: T;
  onChoose: (way: T) => void;
};

function Ways<T extends string>({ name, ways, chosen, onChoose }: WaysProps<T>) {
  return (
    <div className="mt-3 border-t border-line pt-2">
      <div className="mb-1.5 font-medium">{name}</div>
      <Choices label={name} className="flex flex-wrap gap-1.5">
        {ways.map(([way, label]) => (
          <Choice key={way} pressed={way === chosen} onChoose={() => onChoose(way)}>
            {label}
          </Choice>
        ))}
      </Choices>
    </div>
  );
}
