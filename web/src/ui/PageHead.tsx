import type { ReactNode } from "react";
import { Link } from "react-router";
import { Mark } from "./Mark";

/** The head of a page beside a project: home, back to its drawing where there is one, and what the page is asked. */
export function PageHead({ project, children }: { project?: string; children?: ReactNode }) {
  return (
    <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ink bg-paper px-4 py-2">
      <Link to="/" className="flex items-center gap-2" title="All projects">
        <Mark />
        <span className="text-[18px] font-semibold">Fennup</span>
      </Link>
      {project && (
        <Link className="plain-button" to={`/project/${project}`}>
          Back to the drawing
        </Link>
      )}
      {children}
    </header>
  );
}
