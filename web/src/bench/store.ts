import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Bench, RecordIn } from "../api/types";

/** What this device keeps of the bench: the last known data of every project and its records, what was not sent yet, where one is at, its name. */
interface Kept extends DBSchema {
  benches: { key: string; value: Bench };
  records: { key: string; value: { project: string; record: Record }; indexes: { project: string } };
  queue: { key: string; value: { project: string; entry: RecordIn } };
  settings: { key: string; value: string };
  /** What the server will never take, with its reason: kept all the same. */
  refused: { key: string; value: { project: string; entry: RecordIn; reason: string } };
}
type Record = Bench["records"][number];

let opened: Promise<IDBPDatabase<Kept>> | null = null;

const db = () => {
  opened ??= openDB<Kept>("fennup-bench", 1, {
    upgrade(made) {
      made.createObjectStore("benches");
      made.createObjectStore("records").createIndex("project", "project");
      made.createObjectStore("queue");
      made.createObjectStore("settings");
      made.createObjectStore("refused");
    },
  });
  return opened;
};

/** Written through to the disk before it counts as kept: a browser that is killed has it. */
const SURELY = { durability: "strict" } as const;
/** Whose data were kept last, by what they follow from: they are large, and written anew only when they are other ones. */
const written = new Map<string, string>();

export async function keptBench(project: string): Promise<Bench | undefined> {
  const bench = await (await db()).get("benches", project);
  if (!bench) return undefined;
  const records = await (await db()).getAllFromIndex("records", "project", project);
  return { ...bench, records: records.map((one) => one.record) };
}
/** What the server said, kept for when it does not answer. */
export async function keepBench(bench: Bench) {
  const of = `${bench.based_on} ${bench.practice}`;
  if (written.get(bench.project) !== of) {
    await (await db()).put("benches", { ...bench, records: [] }, bench.project);
    written.set(bench.project, of);
  }
  const known = new Set(await (await db()).getAllKeysFromIndex("records", "project", bench.project));
  const fresh = bench.records.filter((record) => !known.has(record.id));
  const put = (await db()).transaction("records", "readwrite");
  await Promise.all([
    ...fresh.map((record) => put.store.put({ project: bench.project, record }, record.id)),
    put.done,
  ]);
}
export const queued = async (project: string) =>
  (await (await db()).getAll("queue")).filter((one) => one.project === project).map((one) => one.entry);

/** Put an entry into the queue: done when it is on the disk. */
export async function enqueue(project: string, entry: RecordIn) {
  const put = (await db()).transaction("queue", "readwrite", SURELY);
  await Promise.all([put.store.put({ project, entry }, entry.id), put.done]);
}
/** An entry has arrived: out of the queue, into what is known of the project, in one step. */
export async function arrived(project: string, record: Record) {
  const both = (await db()).transaction(["records", "queue"], "readwrite", SURELY);
  await Promise.all([
    both.objectStore("records").put({ project, record }, record.id),
    both.objectStore("queue").delete(record.id),
    both.done,
  ]);
}
/** The server will never take an entry: it is kept apart, with the reason. */
export async function setAside(project: string, entry: RecordIn, reason: string) {
  const both = (await db()).transaction(["refused", "queue"], "readwrite", SURELY);
  const aside = both.objectStore("refused").put({ project, entry, reason }, entry.id);
  await Promise.all([aside, both.objectStore("queue").delete(entry.id), both.done]);
}
export const setting = async (name: string) => (await db()).get("settings", name);
export const keepSetting = async (name: string, value: string) => {
  await (await db()).put("settings", value, name);
};
