import { useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useEffect, useState } from "react";
import { RACK, rackFromTable, stopPlanning } from "../api/boards";
import { projectKey } from "../api/documents";
import { refresh } from "../api/refresh";
import type { Act, Boards, Problem, Project, Rack } from "../api/types";
import type { Held } from "../api/useDocument";
import { Choice, Choices } from "../ui/Choices";
import { BuyPanel } from "./BuyPanel";
import { PlanPanel } from "./PlanPanel";
import { PlanSheet } from "./PlanSheet";
import { RackPanel, RackSheet } from "./RackSheet";
import { YardPanel } from "./YardPanel";

type Props = {
  project: Project;
  held: { act: (acts: Act[]) => Promise<Problem | null> };
  boards: Held<Boards>;
  rack: Held<Rack>;
  progress: number | null;
  touched: string | null;
  onTouch: (part: string | null) => void;
  onRack: (on: boolean) => void;
  onProblem: (problem: Problem | null) => void;
};

/** Boards: which part comes out of which board, what is on the rack, what to buy. */
export function BoardsPlace(props: Props) {
  const { project, held, boards, rack, progress, touched, onTouch, onRack, onProblem } = props;
  const client = useQueryClient();
  const [tab, setTab] = useState("plan");
  const [onBoard, setOnBoard] = useState<string | null>(null);
  const plan = boards.shown?.plan;
  const stale = boards.shown?.stale ?? true;
  const showsRack = tab === "rack";
  useEffect(() => onRack(showsRack), [showsRack, onRack]);
  useEffect(() => {
    if (touched) setTab("plan");
  }, [touched]);
  const wish = async (acts: Act[]) => onProblem(await boards.act(acts));
  const refreshed = () => refresh(client, projectKey(project.id, "boards"));
  const stop = async () => {
    const answer = await stopPlanning(project.id);
    onProblem(answer.ok ? null : answer.problem);
    refreshed();
  };
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keyboard too */}
      <main tabIndex={0} className="sheet relative min-w-0 flex-1 px-3 py-4 lg:overflow-y-auto">
        <div className="flex flex-wrap items-start gap-x-4 gap-y-1 px-2.5">
          <div className="min-w-0 flex-1">
            <h1 className="text-[24px]">
              {project.name}: {showsRack ? "the rack" : "boards"}
            </h1>
            {showsRack ? (
              <p className="text-ink-2">
                What lies in the workshop. Type over any size; drag a ring to trim an end or move a knot.
              </p>
            ) : (
              <>
                <p className="text-ink-2">{plan ? plan.detail : boards.shown?.notice ? "" : "Planning…"}</p>
                <p className="text-[15px] text-ink-2 max-sm:hidden">
                  Touch a part to see where it goes; drag it to another board.
                </p>
              </>
            )}
          </div>
          <Choices label="Seen" className="flex lg:hidden">
            <Choice pressed={!showsRack} onChoose={() => setTab("plan")}>
              Plan
            </Choice>
            <Choice pressed={showsRack} onChoose={() => setTab("rack")}>
              Rack
            </Choice>
          </Choices>
        </div>
        {showsRack ? (
          <RackSheet rack={rack} chosen={onBoard} onChoose={setOnBoard} onProblem={onProblem} />
        ) : (
          <>
            {progress !== null && (
              <p role="status" className="mt-1 flex items-center gap-3 px-2.5">
                <progress max={1} value={progress} className="w-40" aria-label="Planning" />
                {plan && !stale ? "Looking for a better one." : "Planning anew."}
                {plan && !stale && (
                  <button type="button" className="plain-button" onClick={stop}>
                    Good enough: stop
                  </button>
                )}
              </p>
            )}
            {boards.shown?.notice && (
              <p role="alert" className="px-2.5 font-medium text-cut">
                {boards.shown.notice}
              </p>
            )}
            {stale && plan && (
              <p role="status" className="px-2.5 font-medium text-warn">
                This plan is of what was before.
              </p>
            )}
            {plan && <PlanSheet plan={plan} stale={stale} touched={touched} onTouch={onTouch} onAct={wish} />}
            {plan && plan.boards.length === 0 && !stale && (
              <p className="px-2.5 py-4">
                Put boards on the rack, or ask the yard for its list: then the plan is drawn here.
              </p>
            )}
          </>
        )}
      </main>
      <aside
        className="w-full border-l border-line bg-paper lg:w-[420px] lg:overflow-y-auto"
        aria-label="Details"
      >
        <Tabs.Root value={tab} onValueChange={setTab}>
          <Tabs.List
            aria-label="Details"
            className="sticky top-0 z-10 flex border-b border-line bg-paper max-sm:overflow-x-auto"
          >
            <Tabs.Trigger value="plan" className="tab px-4" data-skip="plan">
              The plan
            </Tabs.Trigger>
            <Tabs.Trigger value="rack" className="tab px-4" data-skip="rack">
              Rack
            </Tabs.Trigger>
            <Tabs.Trigger value="yard" className="tab px-4">
              Yard
            </Tabs.Trigger>
            <Tabs.Trigger value="buy" className="tab px-4">
              To buy
            </Tabs.Trigger>
          </Tabs.List>
          <Tabs.Content value="plan" className="p-5 pt-3">
            {boards.shown && (
              <PlanPanel
                project={project}
                boards={boards}
                shown={boards.shown}
                rack={rack.shown}
                touched={touched}
                onRack={async (acts) => {
                  onProblem(await rack.act(acts));
                  setTab("rack");
                }}
                onProject={async (acts) => onProblem(await held.act(acts))}
                onDone={() => {
                  refreshed();
                  refresh(client, RACK);
                }}
                onProblem={onProblem}
              />
            )}
          </Tabs.Content>
          <Tabs.Content value="rack" className="p-5 pt-3">
            <RackPanel
              rack={rack}
              board={rack.shown?.boards.find((b) => b.id === onBoard)}
              project={project.id}
              onProblem={onProblem}
              onTable={async (text) => {
                const answer = await rackFromTable(project.id, rack.saved?.version ?? 1, text);
                refresh(client, RACK);
                refreshed();
                return answer.ok ? null : answer.problem;
              }}
            />
          </Tabs.Content>
          <Tabs.Content value="yard" className="p-5 pt-3">
            <YardPanel project={project.id} onAct={wish} onChanged={refreshed} onProblem={onProblem} />
          </Tabs.Content>
          <Tabs.Content value="buy" className="p-5 pt-3">
            {plan && (
              <BuyPanel
                project={project}
                plan={plan}
                onAct={wish}
                onChanged={() => {
                  refreshed();
                  refresh(client, projectKey(project.id));
                }}
              />
            )}
          </Tabs.Content>
        </Tabs.Root>
      </aside>
    </div>
  );
}
