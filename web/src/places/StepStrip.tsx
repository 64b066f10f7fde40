import { Toolbar } from "radix-ui";
import { Fragment, useState } from "react";
import type { StepBrief } from "../api/types";
import { Sign } from "../ui/Sign";

type Props = {
  steps: StepBrief[];
  chosen: string | undefined;
  onChoose: (key: string) => void;
  onDrop: (key: string, before: string | null) => void;
};

const isTest = (step: StepBrief) => step.key.startsWith("test ");

/** The steps' keys in order with one of them put before another, or last; tests go with the setting that they try. */
export function moved(steps: StepBrief[], key: string, before: string | null): string[] {
  const rest = steps.filter((step) => !isTest(step) && step.key !== key).map((step) => step.key);
  const place = before === null ? rest.length : rest.indexOf(before);
  return [...rest.slice(0, place), key, ...rest.slice(place)];
}

/** Every step in order, the changes of setting between them; one can be dragged before another. */
export function StepStrip({ steps, chosen, onChoose, onDrop }: Props) {
  const [held, setHeld] = useState<string | null>(null);
  return (
    <Toolbar.Root
      role="group"
      aria-orientation={undefined}
      aria-label="Steps"
      className="step-strip mt-2 flex flex-wrap items-stretch gap-1.5 max-sm:flex-nowrap max-sm:[&>*]:shrink-0 max-sm:overflow-x-auto max-sm:pb-2"
    >
      {steps.map((step, i) => (
        <Fragment key={step.key}>
          {i > 0 && isTest(step) && <span aria-hidden="true" className="setting-change" />}
          <Toolbar.Button
            className={`step-chip ${isTest(step) ? "test" : ""}`}
            aria-pressed={step.key === chosen}
            draggable={!isTest(step)}
            onDragStart={(event) => {
              event.dataTransfer.setData("text/plain", step.key);
              setHeld(step.key);
            }}
            onDragEnd={() => setHeld(null)}
            onDragOver={(event) => held && held !== step.key && !isTest(step) && event.preventDefault()}
            onDrop={(event) => {
              event.preventDefault();
              if (held) onDrop(held, step.key);
            }}
            onClick={() => onChoose(step.key)}
          >
            <span className="flex items-center gap-1.5">
              {step.out && <Sign is="warning" />} {isTest(step) ? "test" : step.what}
              {step.count > 1 && <span className="figure"> ×{step.count}</span>}
            </span>
            {!isTest(step) && <span className="block truncate text-[14px] font-normal">{step.name}</span>}
            {isTest(step) && <span className="figure block text-[16px] setting">{step.setting}</span>}
          </Toolbar.Button>
        </Fragment>
      ))}
    </Toolbar.Root>
  );
}
