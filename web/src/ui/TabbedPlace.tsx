import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

type Props = {
  /** What the tabs are of. */
  label: string;
  tabs: readonly (readonly [string, string])[];
  tab: string;
  onTab: (tab: string) => void;
  className?: string;
  tabClass?: string;
  /** The drawing, or whatever is looked at. */
  sheet: ReactNode;
  /** What stands beside it, by tab. */
  panels: Record<string, ReactNode>;
};

/** A place of several tabs: its sheet to the left, beside it what can be decided; on a phone one under the other. */
export function TabbedPlace({
  label,
  tabs,
  tab,
  onTab,
  className = "",
  tabClass = "px-2.5",
  sheet,
  panels,
}: Props) {
  return (
    <Tabs.Root value={tab} onValueChange={onTab} className={`fit-place ${className}`}>
      <nav aria-label={label} className="fit-tabs">
        <Tabs.List aria-label="What to look at" className="flex">
          {tabs.map(([value, name]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              className={`tab whitespace-nowrap ${tabClass}`}
              data-skip={value}
            >
              {name}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </nav>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keyboard too */}
      <main tabIndex={0} className="sheet fit-sheet lg:overflow-y-auto">
        {sheet}
      </main>
      <aside aria-label="Details" className="fit-aside">
        {Object.entries(panels).map(([value, panel]) => (
          <Tabs.Content key={value} value={value} className="p-5 pt-3">
            {panel}
          </Tabs.Content>
        ))}
      </aside>
    </Tabs.Root>
  );
}
