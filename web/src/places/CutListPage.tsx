import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { cardsQuery, projectApi, settingsQuery } from "../api/documents";
import type { Part } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";

/** Room for the red dots of the long points. */
const PART_PAD = { left: 10, right: 10, top: 10, bottom: 10 };

/** One clean page to take to the saw. */
export function CutListPage() {
  const { id = "" } = useParams();
  const url = `/api/projects/${id}`;
  const own = projectApi(id);
  const query = useQuery({ queryKey: own.key, queryFn: own.read });
  const project = query.data;
  const cards = useQuery({ ...cardsQuery(id, project?.version), enabled: !!project });
  const saw = useQuery({ ...settingsQuery(id, project?.version), enabled: !!project });
  useEffect(() => {
    document.title = project ? `${project.name}: cut list` : "Cut list";
  }, [project]);
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
          className="on-paper h-[300px] w-[640px] max-w-full"
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
      <h2 className="mt-4 mb-1 text-[20px]">Saw</h2>
      <ul>
        {saw.data.settings.map((setting) => (
          <li key={setting.id} className="break-inside-avoid border-b border-line py-1.5">
            <FigureText figure={setting.shown} className="text-[20px]" /> <strong>{setting.direction}</strong>
            , {setting.tilt}
            <span className="text-ink-2"> ({setting.exact})</span>
            {setting.why_not && <span className="block font-medium">{setting.why_not}</span>}
            {setting.uses.map((use) => (
              <span key={use.text} className="block">
                {use.text}, {use.count}: {use.lies}
              </span>
            ))}
          </li>
        ))}
      </ul>
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
      <div className="grid grid-cols-[1fr_1fr_1.3fr] gap-x-5 max-sm:grid-cols-1">
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
        <div className={part.ends.length ? "" : "col-span-3"}>
          {part.ladder.map((rung) => (
            <p key={rung.id}>
              <FigureText figure={rung.figure} className={rung.here ? "text-[24px]" : "text-[18px]"} />{" "}
              <span className={rung.here ? "font-medium" : ""}>{rung.label}</span>: {rung.note}
              {rung.figure.exact && `, exactly ${rung.figure.exact}`}
            </p>
          ))}
        </div>
        {part.edges.length > 0 && (
          <div className="col-span-3 max-sm:col-span-1">
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
