import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useEffect, useState } from "react";
import { stepQuery } from "../api/saw";
import type { Act, Problem, Project, Steps, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Sign } from "../ui/Sign";
import { MarksPanel, PaperPanel } from "./MarksPanel";
import { OrderPanel } from "./OrderPanel";
import { StepPanel } from "./StepPanel";
import { StepSheet } from "./StepSheet";
import { moved, StepStrip } from "./StepStrip";
import { ToolsPanel } from "./ToolsPanel";

type Props = {
  project: Project;
  workshop: Held<Workshop>;
  steps: Held<Steps>;
  onTools: (on: boolean) => void;
  onProblem: (problem: Problem | null) => void;
};

/** Saw: all work on the wood as steps in order, one of them in full: how the board lies, what is set, what has changed. */
export function SawPlace({ project, workshop, steps, onTools, onProblem }: Props) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [tab, setTab] = useState("step");
  const shown = steps.shown;
  const list = shown?.steps ?? [];
  const here = list.find((step) => step.key === chosen) ?? list.find((step) => !step.key.startsWith("test "));
  const query = useQuery({
    ...stepQuery(project.id, here?.key ?? "", project.version, shown?.version, workshop.saved?.version),
    enabled: !!here,
    placeholderData: keepPreviousData,
  });
  const step = query.data;
  useEffect(() => onTools(tab === "tools"), [tab, onTools]);
  const wish = async (acts: Act[]) => onProblem(await steps.act(acts));
  const drop = (key: string, before: string | null) =>
    wish([{ op: "choose", path: "order", value: moved(list, key, before) }]);
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keyboard too */}
      <main tabIndex={0} className="sheet min-w-0 flex-1 px-6 py-4 lg:overflow-y-auto">
        <h1 className="text-[24px]">
          {project.name}: {shown ? shown.title : "steps"}
        </h1>
        {shown ? (
          <p
            className={`flex items-center gap-2 ${shown.holds ? "text-ink-2" : "font-medium text-warn"}`}
            role="status"
          >
            {!shown.holds && <Sign is="warning" />}
            {shown.simulated}
          </p>
        ) : (
          <p className="text-ink-2">Opening…</p>
        )}
        {shown?.notice && (
          <p role="alert" className="flex flex-wrap items-center gap-3 font-medium text-warn">
            <Sign is="warning" />
            {shown.notice}
            <button type="button" className="plain-button" onClick={() => wish(shown.order_reset)}>
              Forget my order
            </button>
          </p>
        )}
        <StepStrip steps={list} chosen={here?.key} onChoose={setChosen} onDrop={drop} />
        {step && <StepSheet step={step} />}
      </main>
      <aside
        aria-label="Details"
        className="w-full border-l border-line bg-paper lg:w-[420px] lg:overflow-y-auto"
      >
        <Tabs.Root value={tab} onValueChange={setTab}>
          <Tabs.List
            aria-label="Details"
            className="sticky top-0 z-10 flex border-b border-line bg-paper max-sm:overflow-x-auto"
          >
            {[
              ["step", "This step"],
              ["order", "Order"],
              ["tools", "Tools"],
              ["marks", "Marks"],
              ["paper", "Paper"],
            ].map(([value, name]) => (
              <Tabs.Trigger
                key={value}
                value={value as string}
                className="tab whitespace-nowrap px-3"
                data-skip={value}
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="step" className="p-5 pt-3">
            {step && (
              <StepPanel
                project={project.id}
                step={step}
                workshop={workshop}
                onAct={wish}
                onTested={() => {
                  workshop.takeTheirs();
                }}
              />
            )}
          </Tabs.Content>
          <Tabs.Content value="order" className="p-5 pt-3">
            {shown && <OrderPanel shown={shown} here={here?.key} onAct={wish} onDrop={drop} />}
          </Tabs.Content>
          <Tabs.Content value="tools" className="p-5 pt-3">
            {shown && (
              <ToolsPanel workshop={workshop} here={shown.tools} onWish={wish} onProblem={onProblem} />
            )}
          </Tabs.Content>
          <Tabs.Content value="marks" className="p-5 pt-3">
            {step && <MarksPanel project={project} step={step} />}
          </Tabs.Content>
          <Tabs.Content value="paper" className="p-5 pt-3">
            <PaperPanel project={project} hasModel={shown?.has_model ?? false} />
          </Tabs.Content>
        </Tabs.Root>
      </aside>
    </div>
  );
}
