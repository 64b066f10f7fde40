import type { Bench, RecordIn } from "../api/types";
import { live } from "./fold";

/** `entry`: what can still be taken back. */
export type LogLine = { id: string; when: string; text: string; device: string; entry: RecordIn | null };

const amount = (value: unknown, unit: unknown, bench: Bench) =>
  unit === "deg"
    ? `${Number(Number(value).toFixed(2))}°`
    : bench.ruler.unit === "mm"
      ? `${Number(Number(value).toFixed(2))} mm`
      : `${(Number(value) / 25.4).toFixed(3)}″`;

/** What happened, the newest first, each in a line; what was taken back is told as taken back. */
export function logLines(bench: Bench, entries: RecordIn[]): LogLine[] {
  const titles = new Map(bench.tasks.map((task) => [task.key, task.title]));
  const kept = new Set(live(entries).map((entry) => entry.id));
  const said = (entry: RecordIn): string => {
    const of = titles.get(entry.key) ?? `${entry.key} (no longer in the project)`;
    const { body } = entry;
    if (entry.type === "cut") return `${of}: done.`;
    if (entry.type === "measured") {
      return `${of}: measured ${amount(body.measured, body.unit, bench)}, planned ${amount(body.planned, body.unit, bench)}: ${body.verdict}.`;
    }
    if (entry.type === "wrong") return `${of}: wrong. ${body.text ?? ""}.`;
    return `${of}: ${entry.type}.`;
  };
  return entries
    .filter((entry) => entry.type !== "undone")
    .sort((a, b) => Date.parse(b.device_time) - Date.parse(a.device_time))
    .map((entry) => ({
      id: entry.id,
      when: entry.device_time.slice(0, 16).replace("T", " "),
      text: said(entry) + (kept.has(entry.id) ? "" : " Taken back."),
      device: entry.device,
      entry: kept.has(entry.id) ? entry : null,
    }));
}
