import type { ReactNode } from "react";

/** A row whose figure opens to say where it comes from. */
export function Why({
  title,
  note,
  lines,
  children,
}: {
  title: string;
  note: string;
  lines: string[];
  children: ReactNode;
}) {
  return (
    <details className="group border-t border-line">
      <summary className="flex list-none items-center justify-between gap-3 py-2 marker:hidden">
        <span>
          <span className="block font-medium">{title}</span>
          <span className="block text-[15px] text-ink-2">
            {note} <span className="underline decoration-dotted group-open:hidden">why</span>
            <span className="hidden underline decoration-dotted group-open:inline">close</span>
          </span>
        </span>
        {children}
      </summary>
      <ul className="mb-2 border-l-2 border-mating pl-3 text-[15px]">
        {lines.map((line) => (
          <li key={line} className="py-0.5">
            {line}
          </li>
        ))}
      </ul>
    </details>
  );
}
