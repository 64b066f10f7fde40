import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { LIST } from "../api/documents";
import { bringIn, lookAtFile } from "../api/incoming";
import type { FileIn, FileRead } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { PageHead } from "../ui/PageHead";
import { Sign } from "../ui/Sign";

const LARGEST = 64 * 1024 * 1024;
const PAD = { left: 12, right: 12, top: 12, bottom: 12 };
const MADE = [
  ["frame_outside", "a frame, outside as drawn"],
  ["frame_opening", "a frame, opening as drawn"],
  ["case", "a case standing on it"],
  ["moulding", "a moulding cut across"],
] as const;
const OPENS: Record<string, string> = { workshop: "/", rack: "/" };

/** A file is looked at first: what of it comes in, and what does not. */
export function BringInPage() {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [file, setFile] = useState<FileIn | null>(null);
  const [found, setFound] = useState<FileRead | null>(null);
  const [wrong, setWrong] = useState("");
  const [said, setSaid] = useState("");
  const [busy, setBusy] = useState(false);
  const newest = useRef(0);
  useEffect(() => {
    document.title = "Bring in a file: Fennup";
  }, []);

  const look = async (next: FileIn) => {
    const mine = ++newest.current;
    setFile(next);
    const answer = await lookAtFile(next);
    if (mine !== newest.current) return;
    setWrong(answer.ok ? "" : answer.problem.detail);
    if (answer.ok) setFound(answer.data);
    else if (!next.mapping) setFound(null);
  };
  const choose = async (chosen: File | undefined) => {
    if (!chosen) return;
    setSaid("");
    setFound(null);
    if (chosen.size > LARGEST) {
      setFile(null);
      setWrong(
        `${chosen.name} has ${Math.round(chosen.size / 1024 / 1024)} MB; ${LARGEST / 1024 / 1024} MB is the most.`,
      );
      return;
    }
    setBusy(true);
    const unit = localStorage.getItem("unit") === "in" ? "in" : "mm";
    await look({
      name: chosen.name,
      content: await chosen.text(),
      unit,
      made: "frame_outside",
      width_mm: 60,
      thickness_mm: 20,
      mapping: null,
    });
    setBusy(false);
  };
  const bring = async () => {
    if (!file || !found) return;
    const mapping =
      found.sort === "rack"
        ? Object.fromEntries(found.columns.filter((c) => c.key).map((c) => [c.name, c.key]))
        : null;
    setBusy(true);
    const answer = await bringIn({ ...file, mapping });
    setBusy(false);
    setWrong(answer.ok ? "" : answer.problem.detail);
    if (!answer.ok) return;
    client.invalidateQueries({ queryKey: LIST });
    const { projects, boards, mouldings } = answer.data;
    if (mouldings) navigate("/mouldings");
    else if (projects.length === 1) navigate(`/project/${projects[0]}`);
    else if (projects.length > 1) navigate(OPENS.workshop as string);
    else {
      setFound(null);
      setFile(null);
      setSaid(`${boards} ${boards === 1 ? "board is" : "boards are"} on the rack now.`);
    }
  };
  return (
    <div className="min-h-full">
      <PageHead>
        <h1 className="text-[20px]">Bring in a file</h1>
      </PageHead>
      <main className="mx-auto max-w-[900px] px-6 py-5">
        <p>
          A project or a whole workshop of Fennup's own, of any version; a list of boards as CSV; an outline
          or a moulding cut across, as SVG or DXF. It is only looked at until you bring it in. For a list of
          parts{" "}
          <Link className="underline" to="/plan">
            check a plan
          </Link>
          ; a list of readings comes in under Files in a project's Log.
        </p>
        <label className="plain-button mt-3 inline-flex cursor-pointer items-center has-focus-visible:outline-3 has-focus-visible:outline-focus">
          {busy ? "Reading…" : "Choose a file"}
          <input
            type="file"
            className="sr-only"
            accept=".json,.csv,.tsv,.txt,.svg,.dxf"
            disabled={busy}
            onChange={(event) => {
              choose(event.target.files?.[0]);
              event.target.value = "";
            }}
          />
        </label>
        {file && <span className="ml-3">{file.name}</span>}
        {said && (
          <p role="status" className="mt-3 font-medium">
            {said}
          </p>
        )}
        {wrong && (
          <p role="alert" className="mt-3 flex items-start gap-2 font-medium">
            <Sign is="warning" className="text-warn" />
            {wrong}
          </p>
        )}
        {file && found && (
          <section aria-labelledby="what" className="mt-4">
            <h2 id="what" className="text-[21px]">
              {found.headline}
            </h2>
            {found.sort === "outline" && <MadeOf file={file} onChange={look} />}
            {found.columns.length > 0 && <Columns file={file} found={found} onChange={look} />}
            {found.view && (
              <Drawing
                view={found.view}
                label={file.made === "moulding" ? "The moulding" : "The outline"}
                className="mt-2 h-64 max-w-[420px]"
                pad={PAD}
              />
            )}
            <Listed title="Comes in" lines={found.coming} />
            <Listed title="Does not come in" lines={found.not_coming} />
            <button
              type="button"
              className="plain-button mt-3"
              disabled={busy || !!wrong || found.coming.length === 0}
              onClick={bring}
            >
              Bring it in
            </button>
          </section>
        )}
      </main>
    </div>
  );
}

function Listed({ title, lines }: { title: string; lines: string[] }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h3 className="mt-3 text-[17px]">{title}</h3>
      <ul aria-label={title} className="list-disc pl-5">
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
}

type Changing = { file: FileIn; onChange: (file: FileIn) => void };

function MadeOf({ file, onChange }: Changing) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-4">
      <Choices label="What it becomes">
        {MADE.map(([code, name]) => (
          <Choice
            key={code}
            pressed={file.made === code}
            onChoose={() => onChange({ ...file, made: code, width_mm: code === "case" ? 200 : 60 })}
          >
            {name}
          </Choice>
        ))}
      </Choices>
      {file.made !== "moulding" && (
        <>
          <Millimetres
            label={file.made === "case" ? "High, mm" : "Boards wide, mm"}
            value={file.width_mm ?? 60}
            onValue={(width_mm) => onChange({ ...file, width_mm })}
          />
          <Millimetres
            label="Thick, mm"
            value={file.thickness_mm ?? 20}
            onValue={(thickness_mm) => onChange({ ...file, thickness_mm })}
          />
        </>
      )}
    </div>
  );
}

function Millimetres({
  label,
  value,
  onValue,
}: {
  label: string;
  value: number;
  onValue: (value: number) => void;
}) {
  const [text, setText] = useState(String(value));
  useEffect(() => setText(String(value)), [value]);
  const number = Number(text.replace(",", "."));
  const right = Number.isFinite(number) && number > 0;
  return (
    <label className="flex items-center gap-2">
      {label}
      <input
        className="text-input w-20 text-right"
        value={text}
        aria-invalid={!right}
        onChange={(event) => {
          setText(event.target.value);
          const next = Number(event.target.value.replace(",", "."));
          if (Number.isFinite(next) && next > 0) onValue(next);
        }}
      />
    </label>
  );
}

/** What each column of a table is, to be put right. */
function Columns({ file, found, onChange }: Changing & { found: FileRead }) {
  const mapped = (name: string, key: string) => {
    const next = Object.fromEntries(
      found.columns.filter((c) => c.key && c.name !== name && c.key !== key).map((c) => [c.name, c.key]),
    );
    onChange({ ...file, mapping: key ? { ...next, [name]: key } : next });
  };
  return (
    <>
      <div className="mt-2">
        <Choices label="Sizes in">
          {(["mm", "in"] as const).map((unit) => (
            <Choice key={unit} pressed={file.unit === unit} onChoose={() => onChange({ ...file, unit })}>
              {unit === "mm" ? "millimetres" : "inches"}
            </Choice>
          ))}
        </Choices>
      </div>
      <div className="overflow-x-auto">
        <table className="mt-2 border-collapse">
          <caption className="sr-only">What each column is</caption>
          <thead>
            <tr className="border-b-2 border-ink text-left">
              <th className="pr-4">Column</th>
              <th className="pr-4">is</th>
              <th>begins with</th>
            </tr>
          </thead>
          <tbody>
            {found.columns.map((column) => (
              <tr key={column.name} className="border-b border-line">
                <td className="py-1 pr-4 font-medium">{column.name || "(no name)"}</td>
                <td className="pr-4">
                  <select
                    className="plain-button"
                    aria-label={`What ${column.name} is`}
                    value={column.key}
                    onChange={(event) => mapped(column.name, event.target.value)}
                  >
                    <option value="" className="bg-paper text-ink">
                      left out
                    </option>
                    {found.keys.map(([key, name]) => (
                      <option key={key} value={key} className="bg-paper text-ink">
                        {name}
                      </option>
                    ))}
                  </select>
                </td>
                <td className="text-ink-2">{column.sample.join(" · ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
