import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { answered, api } from "../api/call";
import type { Bench, BenchTask, RecordIn } from "../api/types";
import { fold, OPEN, type State } from "./fold";
import { arrived, enqueue, keepBench, keepSetting, keptBench, queued, setAside, setting } from "./store";

/** How it stands with the server: all is there; on its way; not reachable; reachable, but it cannot save, or not load the list (why). */
export type Link = { is: "sent" | "sending" | "away" | "full" | "old"; text: string };
export type Held = {
  bench: Bench | null;
  missing: string;
  states: (key: string) => State;
  entries: RecordIn[];
  unsent: number;
  link: Link;
  device: string;
  /** Entries that the server refused for good, with its reason. */
  refused: string[];
  understood: () => void;
  rename: (name: string) => void;
  add: (type: string, task: { key: string; fingerprint: string }, body: object) => Promise<RecordIn>;
  takeBack: (entry: RecordIn) => Promise<RecordIn>;
};

const AGAIN_MS = 4000;
const LOOK_MS = 12000;
/** Answers after which sending the same again is of no use: another record has its id, it is too large, or no record at all. */
const NEVER = [409, 413, 422];
const SENT: Link = { is: "sent", text: "All of it is on the server." };

/** The bench of a project: what this device kept of it at once, the server's as soon as it answers; entries are kept here first, then sent. */
export function useBench(project: string): Held {
  const [bench, setBench] = useState<Bench | null>(null);
  const [queue, setQueue] = useState<RecordIn[]>([]);
  const [missing, setMissing] = useState("");
  const [link, setLink] = useState<Link>(SENT);
  const [refused, setRefused] = useState<string[]>([]);
  const [device, setDevice] = useState("");
  const now = useRef<Bench | null>(null);
  const busy = useRef(false);

  const show = useCallback((found: Bench) => {
    now.current = found;
    setBench(found);
  }, []);

  const look = useCallback(async () => {
    const answer = await answered(
      api.GET("/api/projects/{project_id}/bench", { params: { path: { project_id: project } } }),
    );
    if (answer.ok) {
      const found = withRecords(answer.data, now.current?.records ?? []);
      show(found);
      setMissing("");
      await keepBench(found);
    } else if (answer.problem.status === 0) {
      setLink({ is: "away", text: "No connection. Everything is kept on this device." });
      if (!now.current)
        setMissing("Fennup does not answer, and this project was not opened on this device yet.");
    } else if (now.current)
      setLink({
        is: "old",
        text: `This list may be out of date: it could not be loaded. ${answer.problem.detail}`,
      });
    else setMissing(answer.problem.detail);
    return answer.ok;
  }, [project, show]);

  /** Everything that waits, the oldest first, one after another; then what others have sent. */
  const send = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    // What others have sent is asked for beside it: the first picture waits for nothing.
    const asked = look();
    try {
      for (let waits = await queued(project); waits.length > 0; waits = await queued(project)) {
        waits.sort((a, b) => Date.parse(a.device_time) - Date.parse(b.device_time));
        const entry = waits[0] as RecordIn;
        const answer = await answered(
          api.POST("/api/projects/{project_id}/records", {
            params: { path: { project_id: project } },
            body: entry,
          }),
        );
        if (answer.ok) {
          if (now.current) show(withRecords(now.current, [answer.data]));
          await arrived(project, answer.data);
        } else if (!NEVER.includes(answer.problem.status)) {
          const away = answer.problem.status === 0;
          setLink({
            is: away ? "away" : "full",
            text: away
              ? "No connection. Everything is kept on this device."
              : `Kept on this device, not saved yet. ${answer.problem.detail}`,
          });
          return;
        } else {
          await setAside(project, entry, answer.problem.detail);
          setRefused((before) => [...before, answer.problem.detail]);
        }
        setQueue((before) => before.filter((one) => one.id !== entry.id));
      }
      if (await asked) setLink(SENT);
    } finally {
      busy.current = false;
    }
  }, [project, look, show]);

  useEffect(() => {
    nameOfDevice().then(setDevice);
    Promise.all([keptBench(project), queued(project)]).then(([kept, waits]) => {
      if (kept && !now.current) show(kept);
      setQueue((before) => [...waits.filter((one) => before.every((b) => b.id !== one.id)), ...before]);
    });
    send();
  }, [project, send, show]);

  useEffect(() => {
    const soon = () => document.visibilityState === "visible" && send();
    const timer = setInterval(soon, link.is === "sent" ? LOOK_MS : AGAIN_MS);
    window.addEventListener("online", soon);
    document.addEventListener("visibilitychange", soon);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", soon);
      document.removeEventListener("visibilitychange", soon);
    };
  }, [send, link.is]);

  const entries = useMemo(() => [...((bench?.records ?? []) as RecordIn[]), ...queue], [bench, queue]);
  const folded = useMemo(() => fold(entries), [entries]);
  const states = useCallback((key: string) => folded.get(key) ?? OPEN, [folded]);

  const add: Held["add"] = useCallback(
    async (type, task, body) => {
      const entry: RecordIn = {
        id: crypto.randomUUID(),
        key: task.key,
        fingerprint: task.fingerprint,
        type,
        device,
        device_time: withZone(new Date()),
        body: body as RecordIn["body"],
      };
      setQueue((before) => [...before, entry]); // the tap is answered at once; it is on the disk a moment later
      try {
        await enqueue(project, entry);
      } catch {
        setLink({
          is: "full",
          text: "This device has no room to keep what you do: make room on it before you go on.",
        });
      }
      send();
      return entry;
    },
    [project, device, send],
  );
  const takeBack: Held["takeBack"] = useCallback(
    (entry) => add("undone", entry, { takes_back: entry.id }),
    [add],
  );
  const rename = useCallback((name: string) => {
    setDevice(name);
    keepSetting("device", name);
  }, []);
  const understood = useCallback(() => setRefused([]), []);
  const unsent = queue.length;
  return {
    bench,
    missing,
    states,
    entries,
    unsent,
    link,
    device,
    refused,
    understood,
    rename,
    add,
    takeBack,
  };
}

/** Records are only added: one that arrived while another answer was on its way is there as well. */
function withRecords(bench: Bench, more: Bench["records"]): Bench {
  const all = new Map([...more, ...bench.records].map((one) => [one.id, one]));
  return { ...bench, records: [...all.values()] };
}

/** What this device is called in the log: as it was named, as it was paired, else something to tell it from others by. */
async function nameOfDevice(): Promise<string> {
  const known = await setting("device");
  if (known) return known;
  const me = await answered(api.GET("/api/me"));
  const kind = matchMedia("(pointer: coarse)").matches ? "phone" : "desk";
  const name = (me.ok && me.data.name) || `${kind} ${crypto.randomUUID().slice(0, 4)}`;
  await keepSetting("device", name);
  return name;
}

/** Local time with its zone: a record tells what the clock on the wall said. */
function withZone(at: Date): string {
  const minutes = -at.getTimezoneOffset();
  const local = new Date(at.getTime() + minutes * 60_000).toISOString().slice(0, -1);
  const [sign, m] = [minutes < 0 ? "-" : "+", Math.abs(minutes)];
  return `${local}${sign}${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
}

/** The measures that a task should have, as they are planned now. */
export const plannedOf = (bench: Bench, task: BenchTask): Record<string, number> =>
  Object.fromEntries(
    task.checks.map((k) => bench.checks[k]).map((check) => [check?.what ?? "", check?.expected ?? 0]),
  );
