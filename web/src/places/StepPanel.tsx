import type { Act, Out, Step, Workshop } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { Choice, Choices } from "../ui/Choices";
import { Reminder } from "../ui/Reminder";
import { Sign } from "../ui/Sign";
import { MarkLines } from "./MarksPanel";
import { TestForm } from "./TestForm";
import { plural } from "./text";

type Props = {
  project: string;
  step: Step;
  workshop: Held<Workshop>;
  onAct: (acts: Act[]) => void;
  onTested: () => void;
};

const JIG_PAD = { left: 40, right: 60, top: 34, bottom: 14 };

/** One step beside its picture: what to do where a limit is in the way, other ways to lay the board, the test, what to take care of. */
export function StepPanel({ project, step, workshop, onAct, onTested }: Props) {
  return (
    <>
      <h2 className="text-[22px]">{step.title}</h2>
      <p className="text-ink-2">
        {step.tool || "No tool of this workshop makes it: mark it and work it by hand."}
      </p>
      <Reminder project={project} reminder={step.reminder} />
      {step.outs.length > 0 && (
        <section aria-labelledby="outs" className="mt-3">
          <h3 id="outs" className="text-[18px]">
            What to do instead
          </h3>
          <ul>
            {step.outs.map((out) => (
              <WayOut key={out.id} out={out} onAct={onAct} />
            ))}
          </ul>
        </section>
      )}
      {step.hair && <p className="mt-2">{step.hair}</p>}
      {step.test.length > 0 && (
        <section aria-labelledby="trying" className="mt-3">
          <h3 id="trying" className="text-[18px]">
            Before the good wood
          </h3>
          {step.test.map((text) => (
            <p key={text} className="mt-1">
              {text}
            </p>
          ))}
        </section>
      )}
      {step.tests.length > 0 && (
        <TestForm key={step.key} step={step} workshop={workshop} onTested={onTested} />
      )}
      {step.ways.length > 0 && (
        <section aria-labelledby="ways" className="mt-4">
          <h3 id="ways" className="text-[18px]">
            Ways to lay it
          </h3>
          <WayRows label="Ways in reach" ways={step.ways.filter(inReach)} onAct={onAct} />
          {step.ways.some((way) => !inReach(way)) && (
            <details>
              <summary className="min-h-10 py-2 text-ink-2">
                {plural(step.ways.filter((way) => !inReach(way)).length, "way")} out of reach
              </summary>
              <WayRows
                label="Ways out of reach"
                ways={step.ways.filter((way) => !inReach(way))}
                onAct={onAct}
              />
            </details>
          )}
          {step.picked.length > 0 && (
            <button type="button" className="plain-button mt-2" onClick={() => onAct(step.picked as Act[])}>
              Let Fennup pick again
            </button>
          )}
        </section>
      )}
      {step.scribe && (
        <section aria-labelledby="scribe" className="mt-4">
          <h3 id="scribe" className="text-[18px]">
            {step.scribe.label}
          </h3>
          <Choices label={step.scribe.label}>
            {step.scribe.options.map((option) => (
              <Choice key={option.code} pressed={option.chosen} onChoose={() => onAct(option.acts as Act[])}>
                {option.label}
              </Choice>
            ))}
          </Choices>
        </section>
      )}
      {step.cautions.length > 0 && (
        <section aria-labelledby="care" className="mt-4">
          <h3 id="care" className="text-[18px]">
            Take care
          </h3>
          <ul className="list-disc pl-5 text-[16px]">
            {step.cautions.map((text) => (
              <li key={text} className="mt-1">
                {text}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

type Way = Step["ways"][number];
const inReach = (way: Way) => way.misses.length === 0 || way.chosen;

/** Ways to lay a board, what each asks of the saw, and what is in the way. */
function WayRows({ label, ways, onAct }: { label: string; ways: Way[]; onAct: (acts: Act[]) => void }) {
  return (
    <Choices label={label} className="flex flex-col">
      {ways.map((way) => (
        <Choice
          key={way.id}
          pressed={way.chosen}
          className="way-row"
          onChoose={() => onAct(way.acts as Act[])}
        >
          <span className="flex-1 text-left">
            {way.text}
            {way.misses.map((text) => (
              <span key={text} className="flex items-start gap-1.5 text-[15px] text-warn">
                <Sign is="warning" />
                {text}
              </span>
            ))}
          </span>
          <span className="figure whitespace-nowrap text-[17px]">{way.setting}</span>
        </Choice>
      ))}
    </Choices>
  );
}

/** A way round a limit: its figures, its drawing, and the button that takes it. */
function WayOut({ out, onAct }: { out: Out; onAct: (acts: Act[]) => void }) {
  return (
    <li className="border-t border-line py-2">
      <div className="flex items-baseline gap-3">
        <h4 className="flex-1 font-semibold">{out.title}</h4>
        {out.setting && <span className="figure text-[20px]">{out.setting}</span>}
      </div>
      <p className="text-[15px] text-ink-2">{out.text}</p>
      {out.views.map((view) => (
        <Drawing
          key={view.id}
          view={view}
          label={`${out.title}, drawn`}
          className="operator mt-1 h-40"
          pad={JIG_PAD}
        />
      ))}
      <MarkLines lines={out.figures} />
      {out.acts.length > 0 && (
        <button type="button" className="plain-button mt-1" onClick={() => onAct(out.acts as Act[])}>
          Do it so
        </button>
      )}
    </li>
  );
}
