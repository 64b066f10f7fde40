import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { joiningQuery } from "../api/fit";
import type { Act, Fit, Joining, Problem } from "../api/types";
import type { Held } from "../api/useDocument";
import { Drawing } from "../drawing/Drawing";
import { ControlField } from "../ui/ControlField";
import { Sign } from "../ui/Sign";

const PAD = { left: 20, right: 20, top: 16, bottom: 16 };

type Props = {
  project: string;
  fit: Fit;
  stamp: unknown;
  here: Joining | undefined;
  onChoose: (key: string) => void;
};

/** One step of putting it together: what comes to what, from where, drawn from the solids. */
export function OrderSheet({ project, fit, stamp, here, onChoose }: Props) {
  const query = useQuery({
    ...joiningQuery(project, here?.key ?? "", stamp),
    enabled: !!here,
    placeholderData: keepPreviousData,
  });
  const place = fit.order.steps.findIndex((step) => step.key === here?.key);
  const go = (by: number) => {
    const next = fit.order.steps[place + by];
    if (next) onChoose(next.key);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p className="text-ink-2">{fit.order.headline}</p>
      {fit.order.notice && (
        <p role="alert" className="flex items-center gap-2 font-medium text-warn">
          <Sign is="warning" />
          {fit.order.notice}
        </p>
      )}
      {here && (
        <>
          <h2 className="mt-1 text-[22px]">
            {place + 1}. {here.title}
          </h2>
          <p className="text-[17px]">{here.text}</p>
          {query.data && (
            <Drawing
              view={query.data}
              label={`${here.title}: how it comes together`}
              className="min-h-[300px] flex-1"
              pad={PAD}
              touched={query.data.shapes.length > 0 ? partsOf(here) : undefined}
            />
          )}
          <div className="flex gap-2 py-2">
            <button type="button" className="plain-button" disabled={place <= 0} onClick={() => go(-1)}>
              Back
            </button>
            <button
              type="button"
              className="go-button"
              disabled={place >= fit.order.steps.length - 1}
              onClick={() => go(1)}
            >
              Next step
            </button>
          </div>
        </>
      )}
    </div>
  );
}

const partsOf = (step: Joining) => step.key.split("+");

type PanelProps = {
  fit: Fit;
  held: Held<Fit>;
  here: Joining | undefined;
  onChoose: (key: string) => void;
  onProblem: (problem: Problem | null) => void;
};

/** What this step needs, and all steps in order. */
export function OrderSteps({ fit, held, here, onChoose, onProblem }: PanelProps) {
  const wish = async (acts: Act[]) => onProblem(await held.act(acts));
  const groups: [string, string[]][] = here
    ? [
        ["Before", here.before],
        ["Hold it with", here.hold],
        ["Help", here.help],
        ["Check after it", here.check],
        ["Take care", here.care],
      ]
    : [];
  return (
    <>
      {groups
        .filter(([, texts]) => texts.length > 0)
        .map(([name, texts]) => (
          <section key={name} className="mb-3">
            <h3 className="text-[18px]">{name}</h3>
            <ul className="list-disc pl-5">
              {texts.map((text) => (
                <li key={text}>{text}</li>
              ))}
            </ul>
          </section>
        ))}
      <h2 className="mt-3 text-[20px]">All steps</h2>
      <ol>
        {fit.order.steps.map((step, i) => (
          <li key={step.key} className="flex items-center gap-2 border-b border-line py-1">
            <button
              type="button"
              className="step-row flex-1 text-left"
              aria-current={step.key === here?.key ? "step" : undefined}
              onClick={() => onChoose(step.key)}
            >
              {i + 1}. {step.title}
            </button>
            <button
              type="button"
              className="plain-button"
              disabled={step.earlier.length === 0}
              onClick={() => wish(step.earlier as Act[])}
            >
              Earlier<span className="sr-only">: {step.title}</span>
            </button>
            <button
              type="button"
              className="plain-button"
              disabled={step.later.length === 0}
              onClick={() => wish(step.later as Act[])}
            >
              Later<span className="sr-only">: {step.title}</span>
            </button>
          </li>
        ))}
      </ol>
      {fit.order.reset.length > 0 && (
        <button type="button" className="plain-button mt-2" onClick={() => wish(fit.order.reset as Act[])}>
          The usual order
        </button>
      )}
      <h2 className="mt-4 text-[20px]">Glue</h2>
      {fit.order.glue.map((control) => (
        <ControlField
          key={control.id}
          control={control}
          onAct={held.act}
          onLook={async () => null}
          onProblem={onProblem}
        />
      ))}
    </>
  );
}
