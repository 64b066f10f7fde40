import { useState } from "react";
import type { Finish, Problem, Project, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { TabbedPlace } from "../ui/TabbedPlace";
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
    <TabbedPlace
      label="The finish"
      tabs={TABS}
      tab={tab}
      onTab={open}
      className="finish-place"
      tabClass="px-2"
      sheet={
        <>
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
        </>
      }
      panels={{
        fasten: (
          <FastenPanel project={project.id} finish={shown} here={here} onChoose={setJoint} {...doing} />
        ),
        coats: <CoatsPanel finish={shown} {...doing} />,
        days: <DaysPanel project={project.id} finish={shown} tables={tables} {...doing} />,
        holds: <GroupsPanel groups={shown.holds.groups} care={shown.holds.care} {...doing} />,
        site: <GroupsPanel groups={shown.site.groups} care={shown.site.care} {...doing} />,
        tables: <TablesPanel tables={all} here={table} onChoose={setTable} />,
      }}
    />
  );
}
