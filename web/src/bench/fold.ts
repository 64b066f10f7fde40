import type { RecordIn } from "../api/types";

/** What is done, from all entries: the same as the server makes of them (docs/formats.md, Records), in whatever order they came. */
export type State = {
  cut: RecordIn | null;
  fingerprint: string;
  readings: Record<string, RecordIn>;
  wrong: RecordIn | null;
};
export type Status = "open" | "cut" | "measured" | "wrong";

export const OPEN: State = { cut: null, fingerprint: "", readings: {}, wrong: null };

type Put = { key: string; to: "open" | "cut"; fingerprint: string };

/** The entries that were not taken back, in the order in which they happened. */
export function live(entries: RecordIn[]): RecordIn[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const gone = new Set(
    [...byId.values()].filter((e) => e.type === "undone").map((e) => String(e.body.takes_back)),
  );
  return [...byId.values()]
    .filter((entry) => entry.type !== "undone" && !gone.has(entry.id))
    .sort((a, b) => Date.parse(a.device_time) - Date.parse(b.device_time) || (a.id < b.id ? -1 : 1));
}

/** What holds of every task that any entry is about. */
export function fold(entries: RecordIn[]): Map<string, State> {
  const found = new Map<string, State>();
  const of = (key: string) => found.get(key) ?? OPEN;
  for (const entry of live(entries)) {
    const now = of(entry.key);
    if (entry.type === "cut") {
      found.set(entry.key, { ...now, cut: entry, fingerprint: entry.fingerprint, wrong: null });
    } else if (entry.type === "measured") {
      found.set(entry.key, {
        ...now,
        cut: now.cut ?? (entry.body.verdict === "wrong" ? null : entry),
        fingerprint: now.cut ? now.fingerprint : entry.fingerprint,
        readings: { ...now.readings, [String(entry.body.what)]: entry },
      });
    } else if (entry.type === "wrong") {
      found.set(entry.key, {
        ...now,
        cut: now.cut ?? (entry.body.way === "keep" ? entry : null),
        wrong: entry,
      });
      for (const put of (entry.body.sets ?? []) as Put[]) {
        const was = of(put.key);
        const shaved = entry.body.way === "shave" && put.key === entry.key;
        found.set(
          put.key,
          put.to === "open"
            ? { ...OPEN, wrong: shaved ? entry : null }
            : { ...OPEN, cut: entry, fingerprint: put.fingerprint, wrong: was.wrong },
        );
      }
    }
  }
  return found;
}

export const isWrong = (state: State): boolean =>
  state.wrong !== null || Object.values(state.readings).some((entry) => entry.body.verdict === "wrong");

export const statusOf = (state: State): Status =>
  isWrong(state) ? "wrong" : Object.keys(state.readings).length > 0 ? "measured" : state.cut ? "cut" : "open";
