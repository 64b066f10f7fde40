import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

type Props = { label: ReactNode; name: string; className?: string; inside?: string; children: ReactNode };

/** A button that opens a menu below it: by mouse, or by Enter and the arrow keys. */
export function Menu({ label, name, className = "quiet-button", inside = "w-64 p-3", children }: Props) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={className}>
        {label} <span aria-hidden="true">▾</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          aria-label={name}
          className={`z-40 border-2 border-ink bg-paper text-ink shadow-lg ${inside}`}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
