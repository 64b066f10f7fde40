import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { answered, api, fetched } from "../api/call";
import type { Drill, Practice } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { PageHead } from "../ui/PageHead";
import { Sign } from "../ui/Sign";

const SolidCanvas = lazy(() => import("../drawing/SolidCanvas"));
type Level = Drill["level"];
const KEY = ["practice"];
const PAD = { left: 12, right: 12, top: 30, bottom: 20 };
const SMALL = { left: 8, right: 8, top: 8, bottom: 8 };
const SURE = 3;

/** Practice: which way does the board lie? One of four is right; the others show what they make. */
export function PracticePage() {
  const [search] = useSearchParams();
  const project = search.get("project") ?? "";
  const client = useQueryClient();
  const practice = useQuery({
    queryKey: [...KEY, project],
    queryFn: () => fetched(api.GET("/api/practice", { params: { query: { project } } })),
  });
  const [level, setLevel] = useState<Level | null>((search.get("level") as Level | null) || null);
  const [seed, setSeed] = useState(() => Number(search.get("seed")) || Math.floor(Math.random() * 100_000));
  const [chosen, setChosen] = useState<number | null>(null);
  const now = level ?? practice.data?.begin;
  const drill = useQuery({
    queryKey: [...KEY, "drill", project, now, seed],
    queryFn: () =>
      fetched(api.GET("/api/practice/drill", { params: { query: { project, level: now as Level, seed } } })),
    enabled: !!now,
    placeholderData: keepPreviousData,
  });
  useEffect(() => {
    document.title = "Practice: Fennup";
  }, []);
  const answer = async (place: number) => {
    if (chosen !== null || !drill.data || !now) return;
    setChosen(place);
    const right = drill.data.options[place]?.right ?? false;
    await answered(api.POST("/api/practice/answers", { body: { level: now, right } }));
    client.invalidateQueries({ queryKey: [...KEY, project] });
  };
  const another = (of: Level | null) => {
    setLevel(of);
    setChosen(null);
    setSeed((before) => (before + 1) % 1_000_000);
  };
  const levels = practice.data?.levels ?? [];
  const here = levels.find((one) => one.level === now);
  const sure = (here?.answers.slice(-SURE).filter(Boolean).length ?? 0) >= SURE;
  const next = sure ? levels[levels.findIndex((one) => one.level === now) + 1] : undefined;
  return (
    <div className="min-h-full">
      <PageHead project={project || undefined} />
      <main className="px-6 py-4 max-sm:px-3">
        <h1 className="mb-2 text-[24px]">Which way does the board lie?</h1>
        <Choices label="What to practise">
          {levels.map((one) => (
            <Choice
              key={one.level}
              pressed={one.level === now}
              className="plain-button min-h-14 text-left"
              onChoose={() => another(one.level)}
            >
              {one.name}
              <Answers of={one.answers} />
            </Choice>
          ))}
        </Choices>
        {drill.isError && <p role="alert">{drill.error.message}</p>}
        {drill.data && (
          <Asked
            key={`${now} ${seed}`}
            drill={drill.data}
            chosen={chosen}
            onChoose={answer}
            text={here?.text ?? ""}
          />
        )}
        {chosen !== null && (
          <p className="mt-3 flex flex-wrap gap-3">
            <button type="button" className="go-button min-h-14" onClick={() => another(now ?? null)}>
              Another one
            </button>
            {next && (
              <button type="button" className="plain-button min-h-14" onClick={() => another(next.level)}>
                Harder: {next.name.toLowerCase()}
              </button>
            )}
            {project && (
              <Link to={`/project/${project}/bench`} className="plain-button flex min-h-14 items-center">
                Back to the bench
              </Link>
            )}
          </p>
        )}
      </main>
    </div>
  );
}

/** How it went lately. */
function Answers({ of }: { of: Practice["levels"][number]["answers"] }) {
  if (of.length === 0) return null;
  const right = of.filter(Boolean).length;
  return (
    <span className="figure block text-[15px]">
      {right} of {of.length} right
    </span>
  );
}

type AskedProps = { drill: Drill; chosen: number | null; onChoose: (place: number) => void; text: string };

function Asked({ drill, chosen, onChoose, text }: AskedProps) {
  const shown = chosen === null ? null : drill.options[chosen];
  return (
    <section aria-labelledby="asked" className="mt-3">
      <h2 id="asked" className="text-[20px]">
        {drill.title}
      </h2>
      <p className="text-ink-2">
        {drill.whose}. {text}
      </p>
      <figure className="my-2 max-w-3xl">
        <Drawing
          view={drill.view}
          label="The part as it must become, seen from its face"
          className="sheet h-20"
          pad={SMALL}
        />
        <figcaption className="text-[15px] text-ink-2">
          The part as it must become, seen from its face
        </figcaption>
      </figure>
      <ul className="mt-2 grid grid-cols-2 gap-3 max-sm:grid-cols-1">
        {drill.options.map((option, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the four ways keep their places
          <li key={place}>
            <button
              type="button"
              className="drill-way"
              data-answer={chosen === null ? undefined : option.right ? "right" : "wrong"}
              aria-pressed={chosen === place}
              disabled={chosen !== null}
              onClick={() => onChoose(place)}
            >
              <span className="flex h-44">
                {option.views.map((view, i) => (
                  <Drawing
                    key={view.id}
                    view={view}
                    label=""
                    className={`operator h-full ${i === 0 ? "min-w-0 flex-1" : "w-[27%] border-l border-line"}`}
                    pad={i === 0 ? PAD : SMALL}
                  />
                ))}
              </span>
              <span className="block p-2">
                <strong className="figure">{option.setting}</strong>
                <span className="block">{option.lies}</span>
                {chosen !== null && (
                  <span
                    className={`mt-1 flex items-start gap-2 font-medium ${option.right ? "text-go" : "text-warn"}`}
                  >
                    <Sign is={option.right ? "closes" : "warning"} />
                    {option.reason}
                  </span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {shown && (
        <div className="mt-3">
          <p role="status" className="text-[19px] font-semibold">
            {shown.right
              ? "Yes. That is the part:"
              : "Not that one. Yellow is what it makes, beside the part that is wanted:"}
          </p>
          <div className="sheet flex h-72 flex-col border border-line">
            <Suspense fallback={<p className="p-4">Opening…</p>}>
              <SolidCanvas
                solids={shown.solids}
                label="The piece"
                touched={shown.right ? [] : ["made"]}
                onTouch={() => undefined}
              />
            </Suspense>
          </div>
          <p className="text-[15px] text-ink-2">Drag to turn it, or use the arrow keys.</p>
        </div>
      )}
    </section>
  );
}
