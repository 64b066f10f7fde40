import { Toolbar } from "radix-ui";
import type { ReactNode } from "react";

type Props = { label: string; className?: string; children: ReactNode };

/** Buttons that belong together: one stop for the Tab key, from one to the next by the arrow keys. */
export function Choices({ label, className = "flex flex-wrap gap-1.5", children }: Props) {
  return (
    <Toolbar.Root role="group" aria-orientation={undefined} aria-label={label} className={className}>
      {children}
    </Toolbar.Root>
  );
}

type ChoiceProps = {
  pressed?: boolean;
  className?: string;
  onChoose: () => void;
  children: ReactNode;
};

/** One of them. */
export function Choice({ pressed, className = "plain-button", onChoose, children }: ChoiceProps) {
  return (
    <Toolbar.Button className={className} aria-pressed={pressed} onClick={onChoose}>
      {children}
    </Toolbar.Button>
  );
}
