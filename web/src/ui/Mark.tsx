/** Fennup's own mark: a five-sided ring with its last corner still red. */
export function Mark() {
  return (
    <svg viewBox="0 0 32 32" width="30" height="30" aria-hidden="true">
      <path
        d="M16 4 27.4 12.3 23 25.7H9L4.6 12.3Z"
        fill="none"
        stroke="currentColor"
        strokeWidth="2.6"
        strokeLinejoin="round"
      />
      <circle cx="16" cy="4" r="3.4" className="fill-cut" />
    </svg>
  );
}
