import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { settingsQuery } from "../api/documents";
import type { Problem, Project, Tool, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { OtherCaution, OtherRow, SawCaution, SettingRow } from "./SawRows";
import { plural } from "./text";

const SAW_PAD = { left: 76, right: 76, top: 52, bottom: 46 };

type Props = { project: Project; workshop: Held<Workshop>; onProblem: (problem: Problem | null) => void };

/** Saw: every setting once, with how the board lies for each cut; beside it the saw itself, edited on its drawing. */
export function SawPlace({ project, workshop, onProblem }: Props) {
  const query = useQuery({
    ...settingsQuery(project.id, project.version, workshop.saved?.version),
    placeholderData: keepPreviousData,
  });
  const settings = query.data?.settings ?? [];
  const otherwise = query.data?.otherwise ?? [];
  return (
    <div className="flex min-h-0 flex-1 max-lg:flex-col">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keyboard too */}
      <main tabIndex={0} className="min-w-0 flex-1 px-6 py-4 lg:overflow-y-auto">
        <h1 className="text-[24px]">{project.name}: saw settings</h1>
        <p className="text-ink-2">
          {query.data
            ? `${plural(settings.length, "setting")}, each set once for all the cuts under it.`
            : "Opening…"}
        </p>
        <ol>
          {settings.map((setting) => (
            <SettingRow key={setting.id} setting={setting} />
          ))}
        </ol>
        <SawCaution />
        {otherwise.length > 0 && (
          <section aria-labelledby="otherwise">
            <h2 id="otherwise" className="mt-6 border-t-2 border-ink pt-3 text-[20px]">
              With another tool
            </h2>
            <p className="text-ink-2">
              Edges to rip, tapers, notches, holes and panels: a miter saw does not make them.
            </p>
            <ul>
              {otherwise.map((work) => (
                <OtherRow key={work.id} work={work} />
              ))}
            </ul>
            <OtherCaution />
          </section>
        )}
      </main>
      <aside
        aria-label="Your saw"
        className="w-full border-l border-line bg-paper px-5 py-4 lg:w-[420px] lg:overflow-y-auto"
      >
        {workshop.shown?.notice && (
          <p role="status" className="flex items-start gap-2 font-medium text-warn">
            <Sign is="warning" />
            {workshop.shown.notice}
          </p>
        )}
        {workshop.shown?.tools.map((tool) => (
          <ToolProfile key={tool.id} tool={tool} workshop={workshop} onProblem={onProblem} />
        ))}
      </aside>
    </div>
  );
}

function ToolProfile({
  tool,
  workshop,
  onProblem,
}: {
  tool: Tool;
  workshop: Held<Workshop>;
  onProblem: (p: Problem | null) => void;
}) {
  return (
    <>
      <h2 className="text-[22px]">{tool.name}</h2>
      <p className="text-[15px] text-ink-2">Drag a stop, or type where it is on the saw's own scale.</p>
      {tool.views.map((view) => (
        <section key={view.id} aria-label={view.title} className="mt-2">
          <h3 className="text-ink-2">{view.title}</h3>
          <Drawing
            view={view}
            label={view.title}
            className="sheet h-64"
            pad={SAW_PAD}
            onAct={workshop.act}
            onLook={workshop.look}
            onProblem={onProblem}
            step={4}
          />
        </section>
      ))}
      <div className="mt-3">
        {tool.controls.map((c) => (
          <ControlField
            key={c.id}
            control={c}
            onAct={workshop.act}
            onLook={workshop.look}
            onProblem={onProblem}
          />
        ))}
      </div>
    </>
  );
}
