import type { Bench, RecordIn } from "../api/types";
import { live } from "./fold";
import { amount } from "./lengths";

/** `entry`: what can still be taken back. */
export type LogLine = { id: string; when: string; text: string; device: string; entry: RecordIn | null };

/** What is recorded at the bench and the dry fit; the rest is told in the Log. */
const HERE = ["cut", "measured", "wrong", "read", "agreed"];

/** What happened, the newest first, each in a line; what was taken back is told as taken back. */
export function logLines(bench: Bench, entries: RecordIn[]): LogLine[] {
  const titles = new Map(bench.tasks.map((task) => [task.key, task.title]));
  const kept = new Set(live(entries).map((entry) => entry.id));
  const said = (entry: RecordIn): string => {
    const of = titles.get(entry.key) ?? `${entry.key} (no longer in the project)`;
    const { body } = entry;
    if (entry.type === "cut") return `${of}: done.`;
    if (entry.type === "measured") {
      const say = (value: unknown) => amount(Number(value), body.unit === "deg" ? "deg" : "mm", bench.ruler);
      return `${of}: measured ${say(body.measured)}, planned ${say(body.planned)}: ${body.verdict}.`;
    }
    if (entry.type === "read") return `At the dry fit, ${entry.key}: read ${body.typed || body.measured}.`;
    if (entry.type === "agreed") return `Agreed at the dry fit. ${body.text ?? ""}.`;
    if (entry.type === "wrong") return `${of}: wrong. ${body.text ?? ""}.`;
    return `${of}: ${entry.type}.`;
  };
  return entries
    .filter((entry) => HERE.includes(entry.type))
    .sort((a, b) => Date.parse(b.device_time) - Date.parse(a.device_time))
    .map((entry) => ({
      id: entry.id,
      when: entry.device_time.slice(0, 16).replace("T", " "),
      text: said(entry) + (kept.has(entry.id) ? "" : " Taken back."),
      device: entry.device,
      entry: kept.has(entry.id) ? entry : null,
    }));
}
