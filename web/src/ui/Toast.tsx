import { useEffect } from "react";

type Props = { text: string; action: string; onAction: () => void; onGone: () => void };

/** What has just been done, with the way back; it goes by itself after a while. */
export function Toast({ text, action, onAction, onGone }: Props) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the clock starts again only for another text.
  useEffect(() => {
    const timer = setTimeout(onGone, 20_000);
    return () => clearTimeout(timer);
  }, [text]);
  return (
    <div
      role="status"
      className="fixed bottom-6 left-1/2 z-40 flex -translate-x-1/2 items-center gap-4 bg-bar px-5 py-3 text-bar-ink"
    >
      <span>{text}</span>
      <button type="button" className="min-h-10 px-2 font-semibold underline" onClick={onAction}>
        {action}
      </button>
    </div>
  );
}
