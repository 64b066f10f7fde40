import type { Step } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";
import { Sign } from "../ui/Sign";
import { MarkLines } from "./MarksPanel";

const PICTURE_PAD = { left: 16, right: 16, top: 62, bottom: 26 };
const SMALL_PAD = { left: 10, right: 10, top: 12, bottom: 10 };

/** A step as one stands there: the picture, what is set, how the board lies, what has changed. */
export function StepSheet({ step }: { step: Step }) {
  const [picture, ...beside] = step.views;
  return (
    <section aria-labelledby="step" className="mt-2">
      <h2 id="step" className="text-[20px]">
        {step.title}
        {step.detail && <span className="ml-3 text-[16px] font-normal text-ink-2">{step.detail}</span>}
      </h2>
      {step.misses.map((text) => (
        <p key={text} className="flex items-start gap-2 font-medium text-warn">
          <Sign is="warning" />
          {text}
        </p>
      ))}
      <div className="mt-2 flex gap-2 max-sm:flex-col">
        {picture && (
          <Drawing
            view={picture}
            label={`${step.title}: as you stand there`}
            className="operator h-[clamp(190px,31vh,340px)] min-w-0 sm:flex-1"
            pad={PICTURE_PAD}
          />
        )}
        {beside.length > 0 && (
          <div className="flex w-44 flex-col gap-2 max-sm:w-full max-sm:flex-row">
            {beside.map((view) => (
              <figure key={view.id} className="min-w-0 flex-1">
                <Drawing
                  view={view}
                  label={view.title}
                  className="operator h-full min-h-28 max-sm:min-h-20"
                  pad={SMALL_PAD}
                />
                <figcaption className="mt-[-24px] pl-2 text-[14px] text-ink-2">{view.title}</figcaption>
              </figure>
            ))}
          </div>
        )}
      </div>
      <div className="mt-2 flex flex-wrap gap-x-8 gap-y-2">
        {step.sets.map((set) => (
          <div key={set.label} className="max-w-[11.5rem]">
            <p className="text-ink-2">{set.label}</p>
            {set.figure && <FigureText figure={set.figure} className="text-[44px] leading-none" />}
            <p className="font-semibold text-cut">{set.text}</p>
            {set.figure?.exact && <p className="text-[15px] text-ink-2">exactly {set.figure.exact}</p>}
            {set.note && <p className="text-[15px] text-ink-2">{set.note}</p>}
          </div>
        ))}
        {step.figures.length > 0 && (
          <div className="max-w-[26rem]">
            <MarkLines lines={step.figures} />
          </div>
        )}
        <div className="min-w-[13rem] flex-1 text-[17px]">
          {step.lies && <p>{step.lies}</p>}
          {step.changed && <p className="font-semibold">{step.changed}</p>}
          {step.mark && <p>{step.mark}</p>}
          {step.dial && <p className="font-medium">{step.dial}</p>}
          {step.boards && <p className="text-ink-2">{step.boards}</p>}
        </div>
      </div>
    </section>
  );
}
