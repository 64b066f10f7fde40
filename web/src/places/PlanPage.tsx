import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { answered, api, fetched } from "../api/call";
import { STARTS } from "../api/documents";
import { checkPlan, readPlan } from "../api/incoming";
import type { PlanChecked, PlanRead } from "../api/types";
import { Choice, Choices } from "../ui/Choices";
import { PageHead } from "../ui/PageHead";
import { Sign } from "../ui/Sign";

type Line = { id: number; text: string; key: string; value: string };

/** Somebody's plan: which of its figures cannot all be true, and what they are. */
export function PlanPage() {
  const navigate = useNavigate();
  const starts = useQuery({ queryKey: STARTS, queryFn: () => fetched(api.GET("/api/starts")) });
  const [start, setStart] = useState("tub");
  const [unit, setUnit] = useState<"mm" | "in">(localStorage.getItem("unit") === "in" ? "in" : "mm");
  const [text, setText] = useState("");
  const [read, setRead] = useState<PlanRead | null>(null);
  const [lines, setLines] = useState<Line[]>([]);
  const [checked, setChecked] = useState<PlanChecked | null>(null);
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState(false);
  const next = useRef(0);
  const startId = useId();
  const textId = useId();
  useEffect(() => {
    document.title = "Check a plan: Fennup";
  }, []);

  const take = async (words: string) => {
    const answer = await readPlan(start, unit, words);
    setWrong(answer.ok ? "" : answer.problem.detail);
    if (!answer.ok) return;
    setRead(answer.data);
    setChecked(null);
    setLines(answer.data.lines.map((line) => ({ ...line, id: next.current++ })));
  };
  // Another thing has other figures: what was written is read anew.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another start or unit reads it anew
  useEffect(() => {
    if (read) take(text);
  }, [start, unit]);

  const change = (id: number, part: Partial<Line>) => {
    setChecked(null);
    setLines(lines.map((line) => (line.id === id ? { ...line, ...part } : line)));
  };
  const ready = lines.filter((line) => line.key && line.value.trim());
  const check = async () => {
    setBusy(true);
    const answer = await checkPlan(
      start,
      unit,
      ready.map(({ key, value }) => ({ key, value })),
    );
    setBusy(false);
    setWrong(answer.ok ? "" : answer.problem.detail);
    setChecked(answer.ok ? answer.data : null);
  };
  const make = async () => {
    if (!checked) return;
    const answer = await answered(
      api.POST("/api/projects", { body: { spec: checked.spec, unit, name: "From a plan" } }),
    );
    if (answer.ok) navigate(`/project/${answer.data.id}`);
    else setWrong(answer.problem.detail);
  };
  const verdicts = new Map(checked?.lines.map((line) => [line.key, line]));
  return (
    <div className="min-h-full">
      <PageHead>
        <h1 className="text-[20px]">Check a plan</h1>
      </PageHead>
      <main className="mx-auto max-w-[1000px] px-6 py-5">
        <p className="max-w-[70ch] print:hidden">
          Type or paste what a plan says, one figure a line: <em>Height: 320</em>, <em>Slope: 15°</em>,{" "}
          <em>Wall: longest edge: 191</em>; or a table with a part a row. You are told which figures cannot
          all be true, and what they come to.
        </p>
        <div className="mt-3 flex flex-wrap items-center gap-4 print:hidden">
          <label htmlFor={startId} className="flex items-center gap-2">
            It is a
            <select
              id={startId}
              className="plain-button"
              value={start}
              onChange={(event) => setStart(event.target.value)}
            >
              {starts.data?.starts.map((one) => (
                <option key={one.code} value={one.code} className="bg-paper text-ink">
                  {one.name}
                </option>
              ))}
            </select>
          </label>
          <Choices label="Its figures are in">
            {(["mm", "in"] as const).map((one) => (
              <Choice key={one} pressed={unit === one} onChoose={() => setUnit(one)}>
                {one === "mm" ? "millimetres" : "inches"}
              </Choice>
            ))}
          </Choices>
        </div>
        <label htmlFor={textId} className="sr-only">
          What the plan says
        </label>
        <textarea
          id={textId}
          className="text-input mt-3 h-40 w-full print:hidden"
          maxLength={20000}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <div className="flex flex-wrap gap-2 print:hidden">
          <button type="button" className="plain-button" disabled={!text.trim()} onClick={() => take(text)}>
            Read it
          </button>
          <label className="plain-button inline-flex cursor-pointer items-center has-focus-visible:outline-3 has-focus-visible:outline-focus">
            A table from a file
            <input
              type="file"
              className="sr-only"
              accept=".csv,.tsv,.txt"
              onChange={async (event) => {
                const chosen = event.target.files?.[0];
                event.target.value = "";
                if (!chosen) return;
                if (chosen.size > 20_000)
                  return setWrong(`${chosen.name} is no plan's table: it is too large.`);
                const words = await chosen.text();
                setText(words);
                take(words);
              }}
            />
          </label>
        </div>
        {wrong && (
          <p role="alert" className="mt-3 flex items-start gap-2 font-medium">
            <Sign is="warning" className="text-warn" />
            {wrong}
          </p>
        )}
        {checked && (
          <section aria-labelledby="told" className="mt-4">
            <div role="status">
              <h2 id="told" className="flex items-start gap-2 text-[21px]">
                <Sign is={checked.tone === "wrong" ? "error" : "closes"} />
                {checked.headline}
              </h2>
            </div>
            {checked.others.map((other) => (
              <p key={other}>{other}</p>
            ))}
            {checked.taken.length > 0 && (
              <p className="text-ink-2">
                The plan leaves open, and taken as usual: {checked.taken.join("; ")}.
              </p>
            )}
          </section>
        )}
        {read && (
          <>
            <div className="overflow-x-auto">
              <table className="mt-3 w-full border-collapse">
                <caption className="sr-only">What the plan says, and what it is</caption>
                <thead>
                  <tr className="border-b-2 border-ink text-left">
                    <th>The plan's words</th>
                    <th>What it is</th>
                    <th className="text-right">It says</th>
                    <th className="text-right">It is</th>
                    <th className="text-right">Off by</th>
                    <th className="print:hidden" />
                  </tr>
                </thead>
                <tbody>
                  {lines.map((line) => {
                    const verdict = verdicts.get(line.key);
                    const bad = verdict?.tone === "wrong";
                    return (
                      <tr key={line.id} className="border-b border-line align-top">
                        <td className="py-2 pr-3">{line.text}</td>
                        <td className="pr-3">
                          <select
                            className="plain-button max-w-72"
                            aria-label={`What this is: ${line.text || line.value}`}
                            value={line.key}
                            onChange={(event) => change(line.id, { key: event.target.value })}
                          >
                            <option value="" className="bg-paper text-ink">
                              left out
                            </option>
                            {read.options.map((option) => (
                              <option key={option.key} value={option.key} className="bg-paper text-ink">
                                {option.label}
                              </option>
                            ))}
                          </select>
                        </td>
                        <td className="text-right">
                          <input
                            className="text-input w-24 text-right"
                            aria-label={`Its figure: ${line.text || line.key}`}
                            value={line.value}
                            onChange={(event) => change(line.id, { value: event.target.value })}
                          />
                        </td>
                        <td className={`figure pt-2 text-right ${bad ? "text-cut" : ""}`}>
                          <span className="inline-flex items-center gap-1.5">
                            {bad && <Sign is="error" />}
                            {verdict?.true}
                          </span>
                        </td>
                        <td className="figure pt-2 text-right">
                          {verdict?.off}
                          {!bad && verdict?.note && (
                            <span className="block text-[14px] font-normal">{verdict.note}</span>
                          )}
                        </td>
                        <td className="print:hidden">
                          <button
                            type="button"
                            className="quiet-button"
                            onClick={() => {
                              setChecked(null);
                              setLines(lines.filter((one) => one.id !== line.id));
                            }}
                          >
                            Remove<span className="sr-only">: {line.text || line.value}</span>
                          </button>
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </div>
            {read.left.length > 0 && (
              <p className="mt-2 text-ink-2 print:hidden">No figure in: {read.left.join("; ")}.</p>
            )}
            <div className="mt-3 flex flex-wrap gap-2 print:hidden">
              <button
                type="button"
                className="plain-button"
                onClick={() => setLines([...lines, { id: next.current++, text: "", key: "", value: "" }])}
              >
                One more figure
              </button>
              <button
                type="button"
                className="plain-button"
                disabled={busy || ready.length === 0}
                onClick={check}
              >
                {busy ? "Checking…" : `Check ${ready.length} ${ready.length === 1 ? "figure" : "figures"}`}
              </button>
              {checked && (
                <>
                  <button type="button" className="plain-button" onClick={make}>
                    Make a project of it
                  </button>
                  <button type="button" className="plain-button" onClick={() => window.print()}>
                    Print the errata
                  </button>
                </>
              )}
            </div>
          </>
        )}
      </main>
    </div>
  );
}
