import { Popover } from "radix-ui";
import { useState } from "react";
import type { Sheet } from "../api/types";
import { Sign } from "../ui/Sign";
import { plural } from "./text";

const TONE = { closes: "text-go-on-bar", opens: "text-warn-on-bar", fails: "text-fail-on-bar" };
const SEVERITY = { note: "text-ink-2", warning: "text-warn", error: "text-cut" };
const WORD = { note: "To know", warning: "Take care", error: "Wrong" };

type Props = {
  sheet: Sheet;
  /** How far the second proof is, where that takes longer than one waits. */
  progress: number | null;
  /** What the place itself says in one line. */
  foot?: string;
  onTouch: (part: string) => void;
};

/** The floor of every screen in a project: does it close, and what there is to know before cutting. */
export function ClosingBar({ sheet, progress, foot, onTouch }: Props) {
  const { closing, findings } = sheet;
  // On a phone it is one line until it is opened.
  const [open, setOpen] = useState(false);
  const more = open ? "max-sm:basis-full max-sm:leading-tight" : "max-sm:hidden";
  return (
    <footer className="sticky bottom-0 z-20 flex flex-wrap items-center gap-x-4 gap-y-1 bg-bar px-5 py-2.5 max-sm:gap-x-2 max-sm:px-3 text-bar-ink">
      <p role="status" className="flex min-w-0 flex-1 flex-wrap items-center gap-x-3 max-sm:gap-x-2">
        <Sign is={closing.tone} className={TONE[closing.tone]} />
        <span className="font-semibold">{closing.headline}</span>
        <button
          type="button"
          aria-expanded={open}
          className="min-h-10 px-1 underline decoration-dotted sm:hidden"
          onClick={() => setOpen(!open)}
        >
          {open ? "Less" : "More"}
        </button>
        <span className={`text-bar-ink-2 ${more}`}>{closing.detail}</span>
        <span className={`text-[15px] text-bar-ink-2 ${more}`}>
          {closing.second}
          {progress !== null && ` ${Math.round(100 * progress)} %`}
        </span>
      </p>
      {foot && <p className="font-medium max-sm:order-last max-sm:basis-full">{foot}</p>}
      {findings.length > 0 && (
        <Popover.Root>
          <Popover.Trigger className="min-h-10 px-2 font-medium max-sm:px-1 underline decoration-dotted">
            {plural(findings.length, "thing")} to know
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              side="top"
              align="end"
              sideOffset={8}
              aria-label="Things to know"
              className="z-40 max-h-[60vh] w-[min(30rem,94vw)] overflow-auto border-2 border-ink bg-paper p-4 text-ink shadow-lg"
            >
              <ul>
                {findings.map((finding) => (
                  <li key={finding.text} className="flex gap-3 border-b border-line py-2 last:border-0">
                    <Sign is={finding.severity} className={SEVERITY[finding.severity]} />
                    <div>
                      <span className="font-semibold">{WORD[finding.severity]}. </span>
                      {finding.text}
                      {finding.parts.length > 0 && (
                        <span className="mt-1 flex flex-wrap gap-1.5">
                          {finding.parts.map((part) => (
                            <button
                              key={part.id}
                              type="button"
                              className="plain-button"
                              onClick={() => onTouch(part.id)}
                            >
                              {part.name}
                            </button>
                          ))}
                        </span>
                      )}
                    </div>
                  </li>
                ))}
              </ul>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
    </footer>
  );
}
