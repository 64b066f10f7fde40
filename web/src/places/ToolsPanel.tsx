import type { Act, Problem, SchoolChoice, Tool, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";
import { TextField } from "../ui/TextField";

const SAW_PAD = { left: 84, right: 84, top: 62, bottom: 52 };

type Props = {
  workshop: Held<Workshop>;
  /** Which of them are here today. */
  here: SchoolChoice[];
  onWish: (acts: Act[]) => void;
  onProblem: (problem: Problem | null) => void;
};

/** The workshop's tools, each set on its drawing; the first one that reaches is taken. */
export function ToolsPanel({ workshop, here, onWish, onProblem }: Props) {
  const tools = workshop.shown?.tools ?? [];
  const act = async (acts: Act[]) => onProblem(await workshop.act(acts));
  return (
    <>
      <h2 className="text-[22px]">Here today</h2>
      <p className="text-[15px] text-ink-2">The first tool that makes a cut is taken for it.</p>
      <Choices label="Here today">
        {here.map((tool, i) => (
          <Choice
            // biome-ignore lint/suspicious/noArrayIndexKey: two tools may have one name, and they keep their order
            key={i}
            pressed={tool.chosen}
            onChoose={() => onWish(tool.acts as Act[])}
          >
            {tool.label}
          </Choice>
        ))}
      </Choices>
      {workshop.shown?.notice && (
        <p role="status" className="flex items-start gap-2 font-medium text-warn">
          <Sign is="warning" />
          {workshop.shown.notice}
        </p>
      )}
      {tools.map((tool, i) => (
        <details key={tool.id} open={i === 0} className="mt-4 border-t-2 border-ink pt-2">
          <summary className="min-h-10 text-[20px] font-semibold">{tool.name}</summary>
          <ToolProfile
            tool={tool}
            workshop={workshop}
            first={i === 0}
            onAct={act}
            onProblem={onProblem}
            only={tools.length === 1}
          />
        </details>
      ))}
      <details className="mt-4 border-t-2 border-ink pt-2">
        <summary className="min-h-10 text-[20px] font-semibold">One more tool</summary>
        <p className="text-[15px] text-ink-2">Ready made, to be set to what stands there.</p>
        <div className="mt-1 flex flex-col items-start gap-1.5">
          {workshop.shown?.profiles.map((profile) => (
            <button
              key={profile.name}
              type="button"
              className="plain-button"
              onClick={() => act(profile.acts as Act[])}
            >
              {profile.name}
            </button>
          ))}
        </div>
      </details>
    </>
  );
}

type ProfileProps = {
  tool: Tool;
  workshop: Held<Workshop>;
  first: boolean;
  only: boolean;
  onAct: (acts: Act[]) => void;
  onProblem: (problem: Problem | null) => void;
};

function ToolProfile({ tool, workshop, first, only, onAct, onProblem }: ProfileProps) {
  return (
    <>
      <p className="text-[15px] text-ink-2">Drag a ring, or type where it is on the tool's own scale.</p>
      {tool.views.map((view) => (
        <section key={view.id} aria-label={`${tool.name}: ${view.title}`} className="mt-2">
          <h3 className="text-ink-2">{view.title}</h3>
          <Drawing
            view={view}
            label={`${tool.name}: ${view.title}`}
            className={`sheet ${view.id.startsWith("saw_room") ? "h-44" : "h-64"}`}
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
        <TextField
          label="Called"
          value={tool.name}
          onText={(text) => onAct([{ op: "type", path: `tools.${tool.id}.name`, text }])}
        />
      </div>
      {tool.errors.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">What tests have found</h3>
          <ul>
            {tool.errors.map((error) => (
              <li key={error.text} className="flex items-center justify-between gap-3 py-1 text-[15px]">
                {error.text}
                <button
                  type="button"
                  className="quiet-button"
                  aria-label={`Forget: ${error.text}`}
                  onClick={() => onAct(error.forget as Act[])}
                >
                  Forget
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        {!first && (
          <button
            type="button"
            className="plain-button"
            onClick={() => onAct([{ op: "choose", path: "tools.first", value: tool.id }])}
          >
            Take this one first
          </button>
        )}
        {!only && (
          <button
            type="button"
            className="plain-button"
            onClick={() => onAct([{ op: "choose", path: `tools.${tool.id}`, value: null }])}
          >
            It is not in the workshop
          </button>
        )}
      </div>
    </>
  );
}
