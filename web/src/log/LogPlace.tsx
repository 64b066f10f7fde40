import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Answer } from "../api/call";
import { projectKey } from "../api/documents";
import type { Log, Problem, Project, Tables } from "../api/types";
import type { Held } from "../api/useDocument";
import { TabbedPlace } from "../ui/TabbedPlace";
import { AgainPanel, AgainSheet } from "./AgainPart";
import { CostPanel, CostSheet } from "./CostPart";
import { FilesPanel, FilesSheet } from "./FilesPart";
import { LessonsPanel, LessonsSheet } from "./LessonsPart";
import { MadePanel, MadeSheet } from "./MadePart";
import { StoryPanel, StorySheet } from "./StoryPart";

type Props = {
  project: Project;
  log: Held<Log>;
  tables: Held<Tables>;
  onProblem: (problem: Problem | null) => void;
};

/** What every part of this place works with; `told`: an answer of the server takes the place of what is shown. */
export type LogDoing = {
  project: Project;
  log: Log;
  held: Held<Log>;
  told: (answer: Answer<Log>) => boolean;
  onProblem: (problem: Problem | null) => void;
};

const TABS = [
  ["story", "Story"],
  ["made", "As made"],
  ["lessons", "Lessons"],
  ["cost", "Cost"],
  ["again", "Again"],
  ["files", "Files"],
] as const;
const LOOK_AGAIN_MS = 1500;

/** Log: what was made, when, for how long, what was learned, what it costs; build it again; and everything as files. */
export function LogPlace({ project, log, tables, onProblem }: Props) {
  const [tab, setTab] = useState<string>("story");
  const client = useQueryClient();
  const shown = log.shown;
  const waits = tab === "cost" && shown?.cost.waits;
  useEffect(() => {
    if (!waits) return;
    const timer = setInterval(
      () => client.invalidateQueries({ queryKey: projectKey(project.id, "log") }),
      LOOK_AGAIN_MS,
    );
    return () => clearInterval(timer);
  }, [waits, client, project.id]);
  if (!shown) return <main className="sheet flex-1 p-6">Opening…</main>;
  const told = (answer: Answer<Log>) => {
    if (answer.ok) client.setQueryData(projectKey(project.id, "log"), answer.data);
    onProblem(answer.ok ? null : answer.problem);
    return answer.ok;
  };
  const doing = { project, log: shown, held: log, told, onProblem };
  return (
    <TabbedPlace
      label="The log"
      tabs={TABS}
      tab={tab}
      onTab={(next) => {
        setTab(next);
        onProblem(null);
      }}
      tabClass="px-2.5"
      sheet={
        <>
          <h1 className="text-[24px]">{project.name}</h1>
          {tab === "story" && <StorySheet {...doing} />}
          {tab === "made" && <MadeSheet log={shown} />}
          {tab === "lessons" && <LessonsSheet {...doing} />}
          {tab === "cost" && <CostSheet log={shown} />}
          {tab === "again" && <AgainSheet {...doing} />}
          {tab === "files" && <FilesSheet {...doing} />}
        </>
      }
      panels={{
        story: <StoryPanel {...doing} />,
        made: <MadePanel {...doing} />,
        lessons: <LessonsPanel log={shown} />,
        cost: <CostPanel {...doing} tables={tables} />,
        again: <AgainPanel {...doing} />,
        files: <FilesPanel {...doing} />,
      }}
    />
  );
}
