import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { boardsApi, rackApi } from "../api/boards";
import { projectApi, projectKey, workshopApi } from "../api/documents";
import { finishApi, tablesApi } from "../api/finish";
import { fitApi } from "../api/fit";
import { logApi } from "../api/log";
import { sawApi } from "../api/saw";
import type { Problem } from "../api/types";
import { useDocument } from "../api/useDocument";
import { useJob } from "../api/useJob";
import { FinishPlace } from "../finish/FinishPlace";
import { FitPlace } from "../fit/FitPlace";
import { LogPlace } from "../log/LogPlace";
import { UndoRedo } from "../ui/UndoRedo";
import { BoardsPlace } from "./BoardsPlace";
import { ClosingBar } from "./ClosingBar";
import { ConflictBar } from "./ConflictBar";
import { ProjectMenu, UnitMenu } from "./menus";
import { SawPlace } from "./SawPlace";
import { ShapePlace } from "./ShapePlace";
import { PLACES, Tape } from "./Tape";

const NOTHING: unknown[][] = [];

/** One project: the tape of places above, the place itself, and the closing line as its floor. */
export function ProjectPage() {
  const { id = "", place = "" } = useParams();
  const onSaw = place === "saw";
  const onBoards = place === "boards";
  const onFit = place === "fit";
  const onFinish = place === "finish";
  const onLog = place === "log";
  const navigate = useNavigate();
  const [touched, setTouched] = useState<string | null>(null);
  const own = useMemo(() => projectApi(id), [id]);
  const plans = useMemo(() => [projectKey(id, "boards")], [id]);
  const project = useDocument(own, plans, touched);
  const sheets = useMemo(() => [projectKey(id)], [id]);
  const workshop = useDocument(workshopApi, sheets);
  const progress = useJob(project.saved?.job ?? null, own.key);
  const wished = useMemo(() => boardsApi(id), [id]);
  const boards = useDocument(wished, NOTHING, null, onBoards);
  const planning = useJob((onBoards && boards.saved?.job) || null, wished.key, true);
  const stock = useMemo(() => rackApi(id), [id]);
  const rack = useDocument(stock, plans, null, onBoards);
  const [onRack, setOnRack] = useState(false);
  const wishedSaw = useMemo(() => sawApi(id), [id]);
  const steps = useDocument(wishedSaw, sheets, null, onSaw);
  const wishedFit = useMemo(() => fitApi(id), [id]);
  const fit = useDocument(wishedFit, NOTHING, null, onFit);
  const wishedFinish = useMemo(() => finishApi(id), [id]);
  const finish = useDocument(wishedFinish, NOTHING, null, onFinish);
  const finished = useMemo(() => [projectKey(id, "finish"), projectKey(id, "log")], [id]);
  const tables = useDocument(tablesApi, finished, null, onFinish || onLog);
  const logged = useMemo(() => logApi(id), [id]);
  const log = useDocument(logged, NOTHING, null, onLog);
  const [onTables, setOnTables] = useState(false);
  const [onTools, setOnTools] = useState(false);
  const [trouble, setTrouble] = useState<Problem | null>(null);

  const here = onSaw
    ? onTools
      ? workshop
      : steps
    : onBoards
      ? onRack
        ? rack
        : boards
      : onFit
        ? fit
        : onFinish
          ? onTables
            ? tables
            : finish
          : onLog
            ? log
            : project;
  const doing = useCallback(async (what: () => Promise<Problem | null>) => {
    const problem = await what();
    setTrouble(problem && problem.status !== 409 ? problem : null);
  }, []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = ["INPUT", "SELECT", "TEXTAREA"].includes(target.tagName);
      const command = event.ctrlKey || event.metaKey;
      if (command && event.key.toLowerCase() === "z" && !typing) {
        event.preventDefault();
        doing(event.shiftKey ? here.redo : here.undo);
      } else if (command && event.key.toLowerCase() === "y" && !typing) {
        event.preventDefault();
        doing(here.redo);
      } else if (!typing && !command && !event.altKey) {
        const chosen = PLACES[Number(event.key) - 1];
        if (chosen) navigate(`/project/${id}/${chosen.path}`);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [id, navigate, here.undo, here.redo, doing]);

  const name = project.saved?.name;
  const placeName = PLACES.find((p) => p.path === place)?.name ?? "Shape";
  useEffect(() => {
    document.title = name ? `${name}: ${placeName}` : "Fennup";
  }, [name, placeName]);

  // In another place the Tab key begins at the top of the page again, not where something was that is gone.
  const before = useRef(place);
  useLayoutEffect(() => {
    if (before.current !== place) find<HTMLElement>("[data-top]")?.focus();
    before.current = place;
  }, [place]);

  const { shown } = project;
  const unsaved =
    project.unsaved ??
    workshop.unsaved ??
    boards.unsaved ??
    rack.unsaved ??
    steps.unsaved ??
    fit.unsaved ??
    finish.unsaved ??
    log.unsaved ??
    tables.unsaved;
  if (project.missing) return <Missing text={project.missing} />;
  if (!shown) return <p className="p-6">Opening…</p>;
  return (
    <div className="flex min-h-full flex-col lg:h-full">
      <SkipLinks place={place} />
      <header className="flex flex-wrap items-stretch gap-x-3 border-b-2 border-ink bg-paper pl-4 pr-3">
        <Tape id={id} place={place} />
        <span className="tape-rest min-w-6 flex-1" aria-hidden="true" />
        <div className="flex flex-wrap items-center">
          <UnitMenu project={shown} onAct={project.act} />
          <UndoRedo here={here} doing={doing} />
          <Link
            className="quiet-button flex items-center"
            to={`/project/${id}/cut-list`}
            state={{ print: true }}
          >
            Print
          </Link>
          <ProjectMenu project={shown} onProblem={setTrouble} />
        </div>
      </header>
      {here.conflict && <ConflictBar onTheirs={here.takeTheirs} onMine={() => doing(here.keepMine)} />}
      {unsaved && (
        <p role="alert" className="border-b-2 border-warn bg-paper px-6 py-2 font-medium">
          Not saved yet. {unsaved.detail}
        </p>
      )}
      {trouble && (
        <p
          role="alert"
          className="flex items-center justify-between border-b-2 border-cut bg-paper px-6 py-2 font-medium"
        >
          {trouble.detail}
          <button type="button" className="quiet-button" onClick={() => setTrouble(null)}>
            Understood
          </button>
        </p>
      )}
      {onSaw ? (
        <SawPlace
          project={shown}
          workshop={workshop}
          steps={steps}
          onTools={setOnTools}
          onProblem={setTrouble}
        />
      ) : onFit ? (
        <FitPlace
          project={shown}
          fit={fit}
          workshop={workshop}
          onTab={() => setTrouble(null)}
          onProblem={setTrouble}
        />
      ) : onFinish ? (
        <FinishPlace
          project={shown}
          finish={finish}
          tables={tables}
          onTables={setOnTables}
          onProblem={setTrouble}
        />
      ) : onLog ? (
        <LogPlace project={shown} log={log} tables={tables} onProblem={setTrouble} />
      ) : onBoards ? (
        <BoardsPlace
          project={shown}
          held={project}
          boards={boards}
          rack={rack}
          progress={planning}
          touched={touched}
          onTouch={setTouched}
          onRack={setOnRack}
          onProblem={setTrouble}
        />
      ) : (
        <ShapePlace
          project={shown}
          held={project}
          touched={touched}
          onTouch={setTouched}
          onProblem={setTrouble}
        />
      )}
      <ClosingBar
        sheet={shown.sheet}
        progress={progress}
        foot={
          onBoards
            ? boards.shown?.plan?.foot
            : onFit
              ? fit.shown?.foot
              : onFinish
                ? finish.shown?.foot
                : onLog
                  ? log.shown?.foot
                  : undefined
        }
        onTouch={setTouched}
      />
    </div>
  );
}

/** What a keyboard can go to at once, seen when it gets there. */
function SkipLinks({ place }: { place: string }) {
  const ways: Record<string, string> =
    place === "saw"
      ? { settings: "To the steps", step: "To this step" }
      : place === "boards"
        ? { drawing: "To the boards", plan: "To the plan", rack: "To the rack" }
        : place === "fit"
          ? {
              close: "To the forecast",
              readings: "To the readings",
              made: "To what was made",
              order: "To the order",
            }
          : place === "finish"
            ? { fasten: "To the joints", coats: "To the coats", days: "To the days", site: "To setting up" }
            : place === "log"
              ? {
                  story: "To the story",
                  lessons: "To the lessons",
                  cost: "To the cost",
                  files: "To the files",
                }
              : { drawing: "To the drawing", sizes: "To the sizes", parts: "To the parts" };
  const go = (where: string) => {
    if (where === "drawing") return find<SVGElement>('main [tabindex="0"].part-target')?.focus();
    if (where === "settings") return find<HTMLElement>("main .step-chip")?.focus();
    // A tab that has the focus is opened; then what it opens gets it.
    const tab = find<HTMLElement>(`[data-skip="${where}"]`);
    tab?.focus();
    requestAnimationFrame(() => document.getElementById(tab?.getAttribute("aria-controls") ?? "")?.focus());
  };
  return (
    <nav aria-label="Go to" data-top tabIndex={-1} className="outline-none">
      {Object.entries(ways).map(([where, text]) => (
        <button key={where} type="button" className="skip-link" onClick={() => go(where)}>
          {text}
        </button>
      ))}
    </nav>
  );
}

const find = <T extends Element>(selector: string) => document.querySelector<T>(selector);

function Missing({ text }: { text: string }) {
  return (
    <main className="p-6">
      <h1 className="mb-2 text-[20px]">This cannot be opened</h1>
      <p className="mb-4">{text}</p>
      <Link to="/" className="plain-button inline-block">
        All projects
      </Link>
    </main>
  );
}
