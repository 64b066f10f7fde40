import type { Step } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";
import { MarkLines } from "./MarksPanel";

/** Room for the red dots of the long points. */
export const PART_PAD = { left: 10, right: 10, top: 10, bottom: 10 };
const PAPER_PAD = { left: 8, right: 8, top: 40, bottom: 22 };

/** A box to tick on paper. */
export const Tick = () => <span aria-hidden="true" className="tick" />;

/** One step on paper, with boxes to tick. */
export function StepRow({ step, number }: { step: Step; number: number }) {
  return (
    <li className="mt-3 break-inside-avoid border-t-2 border-ink pt-2">
      <h3 className="text-[18px]">
        <Tick />
        {number}. {step.title}
        {step.detail && <span className="ml-3 text-[16px] font-normal">{step.detail}</span>}
      </h3>
      <div className="mt-1 flex gap-4 max-sm:flex-col">
        {step.views[0] && (
          <Drawing
            view={step.views[0]}
            label={`${step.title}: as you stand there`}
            className="on-paper h-44 w-72 shrink-0"
            pad={PAPER_PAD}
          />
        )}
        <div>
          <p className="text-ink-2">{step.tool}</p>
          {step.sets.map((set) => (
            <p key={set.label}>
              {set.label}{" "}
              {set.figure && <FigureText figure={set.figure} className="text-[22px] leading-tight" exactly />}{" "}
              <span className="font-semibold">{set.text}</span>
              {set.note && <span className="text-ink-2">, {set.note}</span>}
            </p>
          ))}
          {step.lies && <p>{step.lies}</p>}
          {step.mark && <p className="font-medium">{step.mark}</p>}
          {step.dial && <p>{step.dial}</p>}
          {step.boards && <p>{step.boards}</p>}
          {step.misses.map((text) => (
            <p key={text} className="font-medium">
              {text}
            </p>
          ))}
          <MarkLines lines={step.figures} />
        </div>
      </div>
    </li>
  );
}

const CAUTION = "mt-4 border-t border-line pt-3 text-[15px] text-ink-2";

/** At any powered saw. */
export const SawCaution = () => (
  <p className={CAUTION}>
    Eyes and ears protected. Guard and fence clear of the blade? Move them by hand with the power off. Wait
    for the blade to stop before you lift it or reach for the piece. Cut each setting in scrap first. At a
    table saw: guard and riving knife on, a push stick for the last stretch, never the fence and the miter
    gauge together. A taper or a short piece is clamped to a sled.
  </p>
);
