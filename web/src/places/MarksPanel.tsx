import { useState } from "react";
import { Link } from "react-router";
import type { Answer } from "../api/call";
import { halves, squareIs } from "../api/saw";
import type { MarkLine, Problem, Project, Step } from "../api/types";
import { FigureText } from "../ui/FigureText";

/** Figures to mark by, a line each. */
export function MarkLines({ lines }: { lines: MarkLine[] }) {
  return (
    <ul>
      {lines.map((line) => (
        <li key={`${line.label} ${line.note} ${line.figure.spoken}`} className="py-1">
          {line.label}: <FigureText figure={line.figure} className="text-[20px]" />{" "}
          <span className="text-ink-2">
            {line.note}
            {line.figure.exact && !line.note.includes("exactly") && `, exactly ${line.figure.exact}`}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Marks without a protractor: this cut as offsets, where other parts land, and sums for two parts from one sloping cut. */
export function MarksPanel({ project, step }: { project: Project; step: Step }) {
  return (
    <>
      <h2 className="text-[22px]">Without a protractor</h2>
      <p className="text-ink-2">{step.title}</p>
      {step.mark && <p className="mt-1">{step.mark}</p>}
      {step.marks.length > 0 ? (
        <MarkLines lines={step.marks} />
      ) : (
        <p className="mt-1">This step has no end to mark. Choose an end above.</p>
      )}
      {step.marks.length > 0 && (
        <a className="plain-button mt-2 inline-block" href={template(project.id, step.key, "pdf")} download>
          Its template at true size
        </a>
      )}
      {step.seats.length > 0 && (
        <section aria-labelledby="seats" className="mt-4">
          <h3 id="seats" className="text-[18px]">
            Where other parts land on it
          </h3>
          <p className="text-[15px] text-ink-2">Running marks from one finished end: no rounding adds up.</p>
          <MarkLines lines={step.seats} />
        </section>
      )}
      <SumsForm
        title="Two parts from one sloping cut"
        fields={HALVES}
        reckon={(typed) => halves(project.id, typed as Parameters<typeof halves>[1])}
      />
      <SumsForm
        title="Is the square true?"
        tell="Draw a line from an edge with it, turn it over, draw another from the same place. A gauge set to 90 likewise."
        fields={SQUARE}
        reckon={(typed) => squareIs(project.id, typed as Parameters<typeof squareIs>[1])}
      />
    </>
  );
}

export const template = (project: string, key: string, form: string) =>
  `/api/projects/${project}/templates.${form}?key=${encodeURIComponent(key)}`;

const HALVES = [
  ["long", "Board, long"],
  ["wide", "Width"],
  ["angle", "Angle from square"],
  ["kerf", "Kerf"],
  ["gap", "A gap square to the slope"],
] as const;
const SQUARE = [
  ["apart", "The lines are apart by"],
  ["at", "At a distance of"],
] as const;

type Sums = {
  title: string;
  tell?: string;
  fields: readonly (readonly [string, string])[];
  reckon: (typed: Record<string, string>) => Promise<Answer<{ lines: MarkLine[] }>>;
};

/** A sum at the bench: figures typed, figures back. */
function SumsForm({ title, tell, fields, reckon }: Sums) {
  const [typed, setTyped] = useState<Record<string, string>>(
    Object.fromEntries(fields.map(([n]) => [n, ""])),
  );
  const [lines, setLines] = useState<MarkLine[]>([]);
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = async () => {
    const answer = await reckon(typed);
    setProblem(answer.ok ? null : answer.problem);
    setLines(answer.ok ? answer.data.lines : []);
  };
  return (
    <form
      className="mt-4 border-t border-line pt-3"
      aria-label={title}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <h3 className="text-[18px]">{title}</h3>
      {tell && <p className="text-[15px] text-ink-2">{tell}</p>}
      {fields.map(([name, label]) => (
        <label key={name} className="flex items-center justify-between gap-3 py-1">
          <span>{label}</span>
          <input
            className="figure min-h-10 w-32 rounded-[3px] border border-line bg-paper px-2 aria-[invalid=true]:border-2 aria-[invalid=true]:border-cut"
            aria-invalid={!!problem?.errors?.some((error) => error.path === name)}
            value={typed[name]}
            onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
          />
        </label>
      ))}
      {problem && (
        <p role="alert" className="font-medium text-cut">
          {problem.detail}
        </p>
      )}
      <button type="submit" className="plain-button mt-1">
        Work it out
      </button>
      <MarkLines lines={lines} />
    </form>
  );
}

/** What goes on paper: templates at true size, and the whole plan as one pack. */
export function PaperPanel({ project, hasModel }: { project: Project; hasModel: boolean }) {
  const pack = (form: string, size = "") =>
    `/api/projects/${project.id}/pack.${form}${size ? `?size=${size}` : ""}`;
  return (
    <>
      <h2 className="text-[22px]">On paper, at true size</h2>
      <p className="text-ink-2">
        Ends, wedges, tapers, gussets and joints of a leaning box, part labels, and a box to fold up, over
        several sheets where one is too small. Measure the bars of 100 mm and 4 in before you trust a sheet.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <a className="go-button inline-flex items-center" href={pack("pdf", "a4")} download>
          All templates, A4
        </a>
        <a className="plain-button" href={pack("pdf", "letter")} download>
          All templates, Letter
        </a>
        <a className="plain-button" href={pack("zip")} download>
          SVG and DXF of each
        </a>
        <Link className="plain-button" to={`/project/${project.id}/cut-list`}>
          The steps and the cut list
        </Link>
      </div>
      {hasModel && (
        <>
          <h3 className="mt-4 text-[18px]">A box to cut out and fold up</h3>
          <div className="mt-1 flex flex-wrap gap-2">
            {[2, 5, 10].map((scale) => (
              <a
                key={scale}
                className="plain-button"
                href={`/api/projects/${project.id}/model.pdf?scale=${scale}`}
                download
              >
                1 : {scale}
              </a>
            ))}
          </div>
        </>
      )}
    </>
  );
}
