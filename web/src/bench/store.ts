import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Bench, RecordIn } from "../api/types";

/** What this device keeps of the bench: the last known data of every project, what was not sent yet, where one is at, its name. */
interface Kept extends DBSchema {
  benches: { key: string; value: Bench };
  queue: { key: string; value: { project: string; entry: RecordIn } };
  settings: { key: string; value: string };
  /** What the server will never take, with its reason: kept all the same. */
  refused: { key: string; value: { project: string; entry: RecordIn; reason: string } };
}

let opened: Promise<IDBPDatabase<Kept>> | null = null;

const db = () => {
  opened ??= openDB<Kept>("fennup-bench", 1, {
    upgrade(made) {
      made.createObjectStore("benches");
      made.createObjectStore("queue");
      made.createObjectStore("settings");
      made.createObjectStore("refused");
    },
  });
  return opened;
};

/** Written through to the disk before it counts as kept: a browser that is killed has it. */
const SURELY = { durability: "strict" } as const;

export const keptBench = async (project: string) => (await db()).get("benches", project);
export const keepBench = async (bench: Bench) => {
  await (await db()).put("benches", bench, bench.project);
};
export const queued = async (project: string) =>
  (await (await db()).getAll("queue")).filter((one) => one.project === project).map((one) => one.entry);

/** Put an entry into the queue: done when it is on the disk. */
export async function enqueue(project: string, entry: RecordIn) {
  const put = (await db()).transaction("queue", "readwrite", SURELY);
  await Promise.all([put.store.put({ project, entry }, entry.id), put.done]);
}
/** An entry has arrived: out of the queue, into what is known of the project, in one step. */
export async function arrived(bench: Bench | null, id: string) {
  const both = (await db()).transaction(["benches", "queue"], "readwrite", SURELY);
  const kept = bench ? both.objectStore("benches").put(bench, bench.project) : undefined;
  await Promise.all([kept, both.objectStore("queue").delete(id), both.done]);
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
