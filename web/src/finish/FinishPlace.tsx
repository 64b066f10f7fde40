import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Finish, Problem, Project, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { CoatsPanel, CoatsSheet } from "./CoatsPart";
import { DaysPanel, DaysSheet } from "./DaysPart";
import { FastenPanel, FastenSheet } from "./FastenPart";
import { GroupsPanel, GroupsSheet } from "./PlacesPart";
import { TableSheet, TablesPanel } from "./TablesPart";

type Props = {
  project: Project;
  finish: Held<Finish>;
  tables: Held<Tables>;
  onTables: (open: boolean) => void;
  onProblem: (problem: Problem | null) => void;
};

const TABS = [
  ["fasten", "Fasten"],
  ["coats", "Coats"],
  ["days", "By the day"],
  ["holds", "Holds"],
  ["site", "Set up"],
  ["tables", "Tables"],
] as const;

/** Finish: what holds it together, what coats it, by which day, what it holds, how it is set up; and the tables that all this is reckoned with. */
export function FinishPlace({ project, finish, tables, onTables, onProblem }: Props) {
  const [tab, setTab] = useState<string>("fasten");
  const [joint, setJoint] = useState<string | null>(null);
  const [table, setTable] = useState("recipes");
  const shown = finish.shown;
  if (!shown) return <main className="sheet flex-1 p-6">Opening…</main>;
  const stamp = [project.version, shown.version, tables.saved?.version];
  const here = shown.fasten.joints.find((j) => j.key === joint) ?? shown.fasten.joints[0];
  const all = tables.shown?.tables ?? [];
  const open = (next: string) => {
    setTab(next);
    onTables(next === "tables");
    onProblem(null);
  };
  const doing = { held: finish, onProblem };
  return (
    <Tabs.Root value={tab} onValueChange={open} className="fit-place finish-place">
      <nav aria-label="The finish" className="fit-tabs">
        <Tabs.List aria-label="What to look at" className="flex">
          {TABS.map(([value, name]) => (
            <Tabs.Trigger key={value} value={value} className="tab whitespace-nowrap px-2" data-skip={value}>
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </nav>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keyboard too */}
      <main tabIndex={0} className="sheet fit-sheet lg:overflow-y-auto">
        <h1 className="text-[24px]">{project.name}</h1>
        {tab === "fasten" && (
          <FastenSheet
            project={project.id}
            finish={shown}
            stamp={stamp}
            here={here}
            onChoose={setJoint}
            {...doing}
          />
        )}
        {tab === "coats" && <CoatsSheet project={project.id} finish={shown} stamp={stamp} {...doing} />}
        {tab === "days" && <DaysSheet finish={shown} {...doing} />}
        {tab === "holds" && <GroupsSheet groups={shown.holds.groups} {...doing} />}
        {tab === "site" && <GroupsSheet groups={shown.site.groups} view={shown.site.view} {...doing} />}
        {tab === "tables" && (
          <TableSheet table={all.find((t) => t.id === table)} held={tables} onProblem={onProblem} />
        )}
      </main>
      <aside aria-label="Details" className="fit-aside">
        <Tabs.Content value="fasten" className="p-5 pt-3">
          <FastenPanel finish={shown} here={here} onChoose={setJoint} {...doing} />
        </Tabs.Content>
        <Tabs.Content value="coats" className="p-5 pt-3">
          <CoatsPanel finish={shown} {...doing} />
        </Tabs.Content>
        <Tabs.Content value="days" className="p-5 pt-3">
          <DaysPanel project={project.id} finish={shown} tables={tables} {...doing} />
        </Tabs.Content>
        <Tabs.Content value="holds" className="p-5 pt-3">
          <GroupsPanel groups={shown.holds.groups} care={shown.holds.care} {...doing} />
        </Tabs.Content>
        <Tabs.Content value="site" className="p-5 pt-3">
          <GroupsPanel groups={shown.site.groups} care={shown.site.care} {...doing} />
        </Tabs.Content>
        <Tabs.Content value="tables" className="p-5 pt-3">
          <TablesPanel tables={all} here={table} onChoose={setTable} />
        </Tabs.Content>
      </aside>
    </Tabs.Root>
  );
}
