import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { lazy, Suspense, useEffect, useMemo, useState } from "react";
import { cardsQuery } from "../api/documents";
import type { Act, Problem, Project, View } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FaceTargets } from "../drawing/FaceTargets";
import { Choice, Choices } from "../ui/Choices";
import { ShownVersion } from "../ui/Question";
import { useWide } from "../ui/useWide";
import { FramePanel } from "./FramePanel";
import { MadeOfMenu } from "./MadeOfMenu";
import { NameField } from "./NameField";
import { PartCard } from "./PartCard";
import { useFitting } from "./useFitting";

// Loaded only when it is opened: it is larger than all the rest.
const SolidView = lazy(() => import("../drawing/SolidView"));

type Props = {
  project: Project;
  held: {
    act: (acts: Act[]) => Promise<Problem | null>;
    look: (acts: Act[] | null) => Promise<Problem | null>;
    undo: () => Promise<Problem | null>;
  };
  touched: string | null;
  onTouch: (part: string | null) => void;
  onProblem: (problem: Problem | null) => void;
};

const SOLID = "solid";
/** The section by itself, filling the sheet: then it does not stand beside it as well. */
const PROFILE = "profile";
const PLAIN_PAD = { left: 40, right: 40, top: 22, bottom: 22 };
/** Room at the right for the section, where the sheet is wide. */
const SECTION_ROOM = 250;

/** Shape: the drawing is the form; beside it the touched part's card, or what there is to decide. */
export function ShapePlace({ project, held, touched, onTouch, onProblem }: Props) {
  const { sheet } = project;
  const [tab, setTab] = useState("frame");
  const wide = useWide();
  const [chosen, setChosen] = useState("");
  const fitting = useFitting(project, { act: held.act, onTouch, onProblem });
  const drawn = sheet.views.filter((v) => v.short);
  const turning = chosen === SOLID;
  const view = drawn.find((v) => v.id === chosen) ?? drawn[0];
  const cuts = sheet.views.filter((v) => !v.short && view?.id !== PROFILE);
  const part = sheet.parts.find((p) => touched && p.boards.includes(touched)) ?? sheet.parts[0];
  const cards = useQuery({
    ...cardsQuery(project.id, project.version),
    enabled: tab === "part",
    placeholderData: keepPreviousData,
  });
  useEffect(() => {
    if (touched) setTab("part");
  }, [touched]);
  const names = useMemo(
    () =>
      new Map(sheet.parts.flatMap((p) => p.boards.map((board, i) => [board, p.names[i] ?? board] as const))),
    [sheet.parts],
  );
  if (!view || !part) return null;
  const shownParts =
    tab === "part" ? (touched && part.boards.includes(touched) ? [touched] : part.boards) : [];
  return (
    <ShownVersion value={project.version}>
      <div className="flex min-h-0 flex-1 max-lg:flex-col">
        <main className="sheet relative flex min-w-0 flex-1 flex-col">
          <div className="px-6 pt-4">
            <NameField name={project.name} onAct={held.act} />
            <p className="text-ink-2">{sheet.facts}</p>
            {fitting.on ? (
              <p className="max-w-96 font-medium" role="status">
                {fitting.asks(view.id)}
              </p>
            ) : (
              <p className="text-[15px] text-ink-2 max-sm:hidden">
                Type over any size; drag a ring; touch a {sheet.part_word} for its card.
              </p>
            )}
            {project.echo && <p role="status">{project.echo}</p>}
            {project.notice && (
              <p role="status" className="font-medium">
                {project.notice}
                <button
                  type="button"
                  className="quiet-button py-0 underline"
                  onClick={async () => onProblem(await held.undo())}
                >
                  Undo
                </button>
              </p>
            )}
            <div className="top-4 right-6 z-10 mt-1 flex flex-wrap gap-2 lg:absolute">
              {sheet.takes_pieces && !turning && (
                <button
                  type="button"
                  className="plain-button"
                  aria-pressed={fitting.on}
                  onClick={fitting.toggle}
                >
                  Fit a piece
                </button>
              )}
              <Choices label="View" className="flex">
                {drawn.map((v) => (
                  <Choice key={v.id} pressed={!turning && v.id === view.id} onChoose={() => setChosen(v.id)}>
                    {drawn.length > 1 ? v.short : "Drawn"}
                  </Choice>
                ))}
                <Choice
                  className="plain-button"
                  pressed={turning}
                  onChoose={() => {
                    setChosen(SOLID);
                    fitting.leave();
                  }}
                >
                  Solid
                </Choice>
              </Choices>
            </div>
          </div>
          {turning ? (
            <Suspense fallback={<p className="flex-1 p-6">Opening the solids…</p>}>
              <SolidView
                project={project.id}
                version={project.version}
                label={project.name}
                touched={shownParts}
                onTouch={onTouch}
              />
            </Suspense>
          ) : (
            <Drawing
              view={view}
              label={`${project.name}: ${view.title}`}
              className="min-h-[420px] flex-1 lg:min-h-0"
              extraRight={wide && cuts.length ? SECTION_ROOM : 0}
              touched={fitting.on ? [] : shownParts}
              onTouch={fitting.on ? undefined : onTouch}
              names={names}
              onAct={held.act}
              onLook={held.look}
              onProblem={onProblem}
              step={project.graduation_mm}
              over={
                fitting.on
                  ? (camera) => (
                      <FaceTargets
                        faces={fitting.faces(view.id)}
                        chosen={fitting.chosen(view.id)}
                        camera={camera}
                        onTouch={(face, at) => fitting.touch(view.id, face, at)}
                      />
                    )
                  : undefined
              }
            />
          )}
          {!turning && (
            <div className="right-4 bottom-3 flex w-64 flex-col gap-2 max-lg:mx-auto lg:absolute">
              {cuts.map((cut) => (
                <div key={cut.id}>
                  <h2 className="text-center text-[16px] text-ink-2">{cut.title}</h2>
                  <Drawing
                    view={cut}
                    label={cut.title}
                    className={sectionHeight(cut, cuts.length)}
                    pad={cut.dimensions.length ? undefined : PLAIN_PAD}
                    onAct={held.act}
                    onLook={held.look}
                  />
                </div>
              ))}
            </div>
          )}
        </main>
        <aside
          className="w-full border-l border-line bg-paper lg:w-[420px] lg:overflow-y-auto"
          aria-label="Details"
        >
          <Tabs.Root value={tab} onValueChange={setTab}>
            <Tabs.List aria-label="Details" className="sticky top-0 z-10 flex border-b border-line bg-paper">
              <Tabs.Trigger value="frame" className="tab" data-skip="sizes">
                {sheet.whole}
              </Tabs.Trigger>
              <Tabs.Trigger value="part" className="tab" data-skip="parts">
                Parts
              </Tabs.Trigger>
            </Tabs.List>
            <Tabs.Content value="frame" className="p-5 pt-3">
              <FramePanel sheet={sheet} onAct={held.act} onLook={held.look} onProblem={onProblem} />
              <MadeOfMenu project={project.id} onAct={held.act} onProblem={onProblem} />
            </Tabs.Content>
            <Tabs.Content value="part" className="p-5 pt-3">
              <PartCard
                sheet={sheet}
                part={part}
                card={
                  (part.boards.includes(sheet.card?.id ?? "") ? sheet.card : null) ??
                  cards.data?.parts.find((card) => card.id === part.id)
                }
                rail={touched && part.boards.includes(touched) ? touched : part.id}
                onTouch={onTouch}
                onAct={held.act}
                onLook={held.look}
                onProblem={onProblem}
              />
            </Tabs.Content>
          </Tabs.Root>
        </aside>
      </div>
    </ShownVersion>
  );
}

/** A section with figures on all four sides needs the most room, one of several shares it. */
function sectionHeight(cut: View, sections: number): string {
  if (!cut.dimensions.length) return "h-36";
  if (sections > 1) return "h-60";
  return cut.dimensions.length > 2 ? "h-64" : "h-48";
}
