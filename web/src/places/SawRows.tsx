import type { OtherWork, Setting, Use } from "../api/types";
import { Drawing } from "../drawing/Drawing";
import { FigureText } from "../ui/FigureText";
import { Sign } from "../ui/Sign";
import { plural } from "./text";

/** Room for the red dots of the long points. */
export const PART_PAD = { left: 10, right: 10, top: 10, bottom: 10 };

/** A box to tick on paper. */
export const Tick = () => <span aria-hidden="true" className="tick" />;

/** One position of the saw and every cut that is made at it; `onPaper` with boxes to tick. */
export function SettingRow({ setting, onPaper = false }: { setting: Setting; onPaper?: boolean }) {
  return (
    <li className="mt-3 border-t-2 border-ink pt-3">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <FigureText
          figure={setting.shown}
          className={`leading-none ${onPaper ? "text-[28px]" : "text-[44px]"}`}
        />
        <span className="text-[20px] font-semibold text-cut">{setting.direction}</span>
        <span className="text-[18px]">{setting.tilt}</span>
        <span className="text-ink-2">{setting.exact}</span>
      </div>
      {!setting.reachable && (
        <p className="mt-1 flex items-center gap-2 font-medium text-warn">
          <Sign is="warning" />
          {setting.why_not}
        </p>
      )}
      <ul className={`mt-2 grid gap-x-6 gap-y-3 ${onPaper ? "sm:grid-cols-2" : "2xl:grid-cols-2"}`}>
        {setting.uses.map((use) => (
          <UseRow key={use.text} use={use} onPaper={onPaper} />
        ))}
      </ul>
    </li>
  );
}

function UseRow({ use, onPaper }: { use: Use; onPaper: boolean }) {
  return (
    <li className="flex break-inside-avoid gap-3 max-sm:flex-col">
      <Drawing
        view={use.picture}
        label={`${use.text}: as you stand at the saw`}
        className={`shrink-0 ${onPaper ? "on-paper h-36 w-52" : "sheet h-44 w-60"}`}
        pad={PART_PAD}
      />
      <div>
        <p className="font-semibold">
          {onPaper && <Tick />}
          {use.text}
        </p>
        <p>
          {plural(use.count, "cut")}. <span className="font-medium">{use.mark}</span>
        </p>
        <p className="text-ink-2">{use.lies}</p>
      </div>
    </li>
  );
}

/** What is cut of one part, or of the whole, with another tool. */
export function OtherRow({ work }: { work: OtherWork }) {
  return (
    <li className="mt-3 border-t border-line pt-3">
      <h3 className="text-[18px]">
        {work.name} {work.count > 1 && <span className="figure">× {work.count}</span>}
        <span className="ml-3 text-[16px] font-normal text-ink-2">{work.section_text}</span>
      </h3>
      <div className="mt-1 flex gap-4 max-sm:flex-col">
        {work.view && (
          <Drawing view={work.view} label={work.seen} className="h-28 w-60 shrink-0" pad={PART_PAD} />
        )}
        <ul className="min-w-0 flex-1">
          {work.lines.map((line) => (
            <li key={`${line.label} ${line.figure.spoken}`}>
              {line.label}: <FigureText figure={line.figure} className="text-[20px]" />{" "}
              <span className="text-ink-2">{line.note}</span>
            </li>
          ))}
        </ul>
      </div>
    </li>
  );
}

/** The same on paper, to tick: figures alone, what a part needs besides stands with its drawing. */
export function OtherLine({ work }: { work: OtherWork }) {
  return (
    <li className="break-inside-avoid py-1">
      <Tick />
      <span className="font-medium">
        {work.name} {work.count > 1 && <span className="figure">× {work.count}</span>}
      </span>
      {work.lines.map((line, i) => (
        <span key={`${line.label} ${line.figure.spoken}`}>
          {i ? "; " : ": "}
          {line.label} <FigureText figure={line.figure} />
        </span>
      ))}
    </li>
  );
}

const CAUTION = "mt-4 border-t border-line pt-3 text-[15px] text-ink-2";

/** At the miter saw. */
export const SawCaution = () => (
  <p className={CAUTION}>
    Eyes and ears protected. Guard and fence clear of the blade? Move them by hand with the power off. Wait
    for the blade to stop before you lift it or reach for the piece. Cut each setting in scrap first.
  </p>
);

/** At any other saw. */
export const OtherCaution = () => (
  <p className={CAUTION}>
    At a table saw: guard and riving knife on, a push stick for the last stretch, never the fence and the
    miter gauge together. A taper or a short piece is clamped to a sled. Try a tilted blade in scrap first.
  </p>
);
