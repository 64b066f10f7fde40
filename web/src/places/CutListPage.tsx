import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link, useParams } from "react-router";
import { fetched } from "../api/call";
import type { Project } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";

/** One clean page to take to the saw. */
export function CutListPage() {
  const { id = "" } = useParams();
  const url = `/api/projects/${id}`;
  const query = useQuery({ queryKey: [url], queryFn: () => fetched<Project>(url) });
  const project = query.data;
  useEffect(() => {
    document.title = project ? `${project.name}: cut list` : "Cut list";
  }, [project]);
  if (query.isError) return <p className="p-6">{query.error.message}</p>;
  if (!project) return <p className="p-6">Opening…</p>;
  const { sheet } = project;
  const front = sheet.views.find((v) => v.id === "front");
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
          label={`${project.name}, seen from the front`}
          className="on-paper h-[380px] w-[640px] max-w-full"
        />
      )}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reachable by keyboard */}
      <section aria-label="Parts" className="overflow-x-auto" tabIndex={0}>
        <table className="w-full border-collapse text-left">
          <caption className="py-2 text-left text-[20px] font-semibold">Parts</caption>
          <thead>
            <tr className="border-b-2 border-ink align-bottom">
              {["Part", "Pieces", "Section", "Length", "Left end", "Right end"].map((heading) => (
                <th key={heading} scope="col" className="py-1 pr-4 font-semibold">
                  {heading}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.parts.map((part) => (
              <tr key={part.id} className="break-inside-avoid border-b border-line align-top">
                <th scope="row" className="py-2 pr-4 font-semibold">
                  {part.name}
                  {part.hand_text && <span className="block text-[15px] font-normal">{part.hand_text}</span>}
                </th>
                <td className="py-2 pr-4">{part.members.length}</td>
                <td className="py-2 pr-4">{part.section_text}</td>
                <td className="py-2 pr-4">
                  {part.ladder.map((rung) => (
                    <span key={rung.id} className={`block ${rung.here ? "font-semibold" : "text-ink-2"}`}>
                      <FigureText figure={rung.figure} className={rung.here ? "text-[20px]" : ""} />{" "}
                      {rung.label.toLowerCase()}
                    </span>
                  ))}
                </td>
                {part.ends.map((end) => (
                  <td key={end.end} className="py-2 pr-4">
                    <FigureText figure={end.miter} className="text-[20px]" />
                    <span className="block">{end.leans}</span>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <h2 className="mt-4 mb-1 text-[20px]">Saw</h2>
      <ul>
        {sheet.settings.map((setting) => (
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
