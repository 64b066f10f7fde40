import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useLocation, useNavigate, useParams } from "react-router";
import { boardsApi } from "../api/boards";
import { cardsQuery, projectApi } from "../api/documents";
import { paperQuery } from "../api/saw";
import type { Part } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";
import { BoardDrawn } from "./PlanSheet";
import { PART_PAD, SawCaution, StepRow, Tick } from "./SawRows";

/** What a sheet of paper is wide, in the page's pixels. */
const PAPER_WIDTH = 640;

/** One clean page to take to the saw. */
export function CutListPage() {
  const { id = "" } = useParams();
  const url = `/api/projects/${id}`;
  const own = projectApi(id);
  const query = useQuery({ queryKey: own.key, queryFn: own.read });
  const project = query.data;
  const cards = useQuery({ ...cardsQuery(id, project?.version), enabled: !!project });
  const wished = boardsApi(id);
  const boards = useQuery({ queryKey: wished.key, queryFn: wished.read });
  // A plan that is still being made, or of what was before, does not go on paper.
  const plan = boards.data && !boards.data.stale ? boards.data.plan : null;
  const saw = useQuery({ ...paperQuery(id, project?.version), enabled: !!project });
  useEffect(() => {
    document.title = project ? `${project.name}: cut list` : "Cut list";
  }, [project]);
  // Asked for by the bar's Print: once everything stands on the page.
  const ready = !!project && !!cards.data && !!saw.data && !boards.isPending;
  const asked = useLocation().state?.print === true;
  const navigate = useNavigate();
  useEffect(() => {
    if (!asked || !ready) return;
    navigate(".", { replace: true, state: null });
    window.print();
  }, [asked, ready, navigate]);
  const error = query.error ?? cards.error ?? saw.error;
  if (error) return <p className="p-6">{error.message}</p>;
  if (!project || !cards.data || !saw.data) return <p className="p-6">Opening…</p>;
  const { sheet } = project;
  const front = sheet.views.find((v) => v.id === "front") ?? sheet.views[0];
  return (
    <main className="mx-auto max-w-[960px] px-6 py-5">
      <div className="no-print mb-4 flex flex-wrap gap-2">
        <button type="button" className="go-button" onClick={() => window.print()}>
          Print
        </button>
        <a className="plain-button" href={`${url}/cut-list.csv`} download>
          Save as CSV
        </a>
        <Link className="plain-button" to={`/project/${id}`}>
          Back to the drawing
        </Link>
      </div>
      <h1 className="text-[26px]">{project.name}</h1>
      <p>{sheet.facts}</p>
      <p className="mb-2 font-medium">
        {sheet.closing.headline} <span className="font-normal">{sheet.closing.detail}</span>
      </p>
      {front && (
        <Drawing
          view={{ ...front, grips: [] }}
          label={`${project.name}: ${front.title}`}
          className="on-paper h-[420px] w-[640px] max-w-full"
        />
      )}
      <table className="cut-table">
        <thead>
          <tr>
            <th scope="col">{project.name}: parts, each seen from its face</th>
          </tr>
        </thead>
        <tbody>
          {cards.data.parts.map((part) => (
            <tr key={part.id}>
              <td>
                <PartBlock part={part} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[15px] text-ink-2">
        A raised + or − after a figure: a hair over or under that mark on the tape. Red dots, black on paper:
        long points.
      </p>
      {plan && plan.boards.length > 0 && (
        <section aria-labelledby="boards">
          <h2 id="boards" className="mt-4 text-[20px]">
            Boards: which part comes out of which
          </h2>
          <p className="text-ink-2">{plan.detail}</p>
          {plan.boards.map((board) => (
            <div key={board.id} className="mt-2 break-inside-avoid">
              <h3 className="first-letter:uppercase">
                <Tick />
                {board.name} <span className="figure text-ink-2">{board.size_text}</span>
              </h3>
              <BoardDrawn board={board} scale={PAPER_WIDTH / plan.longest_mm} />
            </div>
          ))}
        </section>
      )}
      <h2 className="mt-4 mb-1 text-[20px]">What it needs</h2>
      <ul>
        {cards.data.needs.map((need) => (
          <li key={need} className="py-0.5">
            <Tick />
            {need}
          </li>
        ))}
      </ul>
      <h2 className="mt-4 text-[20px]">The steps, each setting tried in scrap first</h2>
      <p className="text-ink-2">{saw.data.simulated}</p>
      <ol>
        {saw.data.steps.map((step, i) => (
          <StepRow key={step.key} step={step} number={i + 1} />
        ))}
      </ol>
      <SawCaution />
      {sheet.cautions.map((text) => (
        <p key={text} className="mt-4 font-medium">
          {text}
        </p>
      ))}
      {sheet.findings.length > 0 && (
        <>
          <h2 className="mt-4 mb-1 text-[20px]">To know before cutting</h2>
          <ul className="list-disc pl-5">
            {sheet.findings.map((f) => (
              <li key={f.text}>{f.text}</li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}

/** One part with all that is on its card: whoever cuts by the paper needs nothing else. */
function PartBlock({ part }: { part: Part }) {
  return (
    <>
      <h2 className="text-[20px]">
        <Tick />
        {part.name} <span className="figure">× {part.boards.length}</span>
        <span className="ml-3 text-[16px] font-normal">{part.section_text}</span>
      </h2>
      {part.hand_text && <p className="font-medium">{part.hand_text}</p>}
      <Drawing
        view={part.view}
        label={`${part.name}, seen from its face, ${part.upper} up`}
        className="on-paper my-1 h-24 w-full"
        pad={PART_PAD}
      />
      <div className="grid gap-x-5 sm:grid-cols-[1fr_1fr_1.3fr]">
        {part.ends.map((end) => (
          <div key={end.end}>
            <h3 className="first-letter:uppercase">{end.name}</h3>
            {end.cuts.map((cut, i) => (
              <p key={`${cut.leans} ${cut.bevel} ${cut.miter.spoken}`}>
                {end.cuts.length > 1 && `Cut ${i + 1}: `}
                <FigureText figure={cut.miter} className="text-[20px]" /> {cut.leans}; {cut.bevel}
              </p>
            ))}
          </div>
        ))}
        <div className={part.ends.length ? "" : "sm:col-span-3"}>
          {part.ladder.map((rung) => (
            <p key={rung.id}>
              <FigureText figure={rung.figure} className={rung.here ? "text-[24px]" : "text-[18px]"} />{" "}
              <span className={rung.here ? "font-medium" : ""}>{rung.label}</span>: {rung.note}
              {rung.figure.exact && `, exactly ${rung.figure.exact}`}
            </p>
          ))}
        </div>
        {part.edges.length > 0 && (
          <div className="sm:col-span-3">
            {part.edges.map((edge) => (
              <p key={`${edge.label} ${edge.figure.spoken}`}>
                <span className="font-medium">{edge.label}</span>:{" "}
                <FigureText figure={edge.figure} className="text-[20px]" /> {edge.note}
                {edge.figure.exact && `, exactly ${edge.figure.exact}`}
              </p>
            ))}
          </div>
        )}
      </div>
    </>
  );
}
