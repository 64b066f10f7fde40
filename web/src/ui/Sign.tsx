const PATHS = {
  closes: "M12 3a9 9 0 1 1-.01 0z",
  opens: "M14.5 3.4a9 9 0 1 1-5 0",
  fails: "M12 3 22 20H2zM12 9v5M12 16.6v.6",
  note: "M12 3a9 9 0 1 1-.01 0zM12 11v6M12 7.4v.6",
  warning: "M12 3 22 20H2zM12 9v5M12 16.6v.6",
  error: "M8 3h8l5 5v8l-5 5H8l-5-5V8zM8 8l8 8M16 8l-8 8",
};

/** A sign that goes with words: a closed ring, a ring with a gap, a triangle, a barred octagon. */
export function Sign({ is, className = "" }: { is: keyof typeof PATHS; className?: string }) {
  return (
    <svg viewBox="0 0 24 24" width="24" height="24" aria-hidden="true" className={`shrink-0 ${className}`}>
      <path d={PATHS[is]} fill="none" stroke="currentColor" strokeWidth="2.4" strokeLinejoin="round" />
    </svg>
  );
}
