import type { LogFile } from "../api/types";
import type { LogDoing } from "./LogPlace";
import { ReadingsIn } from "./ReadingsIn";

const GROUPS = [
  ["drawings", "Drawings"],
  ["paper", "For paper"],
  ["tables", "Tables"],
  ["solids", "Solids"],
  ["dates", "Dates"],
];

/** Everything as a file, in open formats. */
export function FilesSheet({ log, project }: LogDoing) {
  return (
    <div className="mt-2 max-w-[860px]">
      {GROUPS.map(([group, title]) => (
        <section key={group} className="mt-3">
          <h2 className="text-[20px]">{title}</h2>
          <ul aria-label={title}>
            {log.files
              .filter((file) => file.group === group)
              .map((file) => (
                <File key={file.sort} file={file} project={project.id} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function File({ file, project }: { file: LogFile; project: string }) {
  return (
    <li className="flex items-center justify-between gap-4 border-b border-line py-1.5">
      <span>
        <span className="block font-medium">{file.title}</span>
        <span className="block text-[15px] text-ink-2">
          {file.about}
          {file.long && " The boards are planned first, where they are not yet."}
        </span>
      </span>
      <a className="plain-button shrink-0" href={`/api/projects/${project}/files/${file.sort}`} download>
        Save<span className="sr-only"> {file.title}</span>
      </a>
    </li>
  );
}

/** The project itself. */
export function FilesPanel(doing: LogDoing) {
  const { project } = doing;
  return (
    <>
      <h2 className="text-[20px]">The project itself</h2>
      <p>
        One open file with everything: shape, wishes, records, photos. It comes in again on the first screen,
        also years later.
      </p>
      <a className="plain-button mt-2 inline-block" href={`/api/projects/${project.id}/file`} download>
        Save the project
      </a>
      <ReadingsIn {...doing} />
      <h2 className="mt-4 text-[20px]">Made for other programs</h2>
      <p>
        They say the same as the screen. Drawings are in millimetres and true size; a drawing on paper says
        its scale.
      </p>
    </>
  );
}
