/** Two windows changed one project: nothing is overwritten until somebody says which it is to be. */
export function ConflictBar({ onTheirs, onMine }: { onTheirs: () => void; onMine: () => void }) {
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 border-b-2 border-cut bg-paper px-6 py-2">
      <span className="font-medium">
        This was changed in another window. Your last change has not been saved yet: it is kept here.
      </span>
      <button type="button" className="plain-button" onClick={onTheirs}>
        Show what is there, drop mine
      </button>
      <button type="button" className="plain-button" onClick={onMine}>
        Do mine on top of it
      </button>
    </div>
  );
}
