import { useCallback, useEffect, useState } from "react";
import type { Bench, BenchTask } from "../api/types";
import type { State } from "./fold";
import { keepSetting, setting } from "./store";

/** The next thing to do after a place in the order: what is open behind it, else what is open before it. */
export function nextOpen(tasks: BenchTask[], after: number, states: (key: string) => State) {
  const open = (task: BenchTask) => !states(task.key).cut;
  return tasks.find((task, i) => i > after && open(task)) ?? tasks.find(open);
}

/** Which task one is at: kept on this device over a reload, a restart and another day. */
export function useHere(bench: Bench | null, states: (key: string) => State) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [ready, setReady] = useState(false);
  const name = `at ${bench?.project ?? ""}`;
  useEffect(() => {
    if (!bench) return;
    setting(name).then((key) => {
      setChosen((now) => now ?? key ?? null);
      setReady(true);
    });
  }, [bench, name]);
  const go = useCallback(
    (key: string) => {
      setChosen(key);
      keepSetting(name, key);
    },
    [name],
  );
  const tasks = bench?.tasks ?? [];
  const place = tasks.findIndex((task) => task.key === chosen);
  const here = tasks[place] ?? (ready ? (nextOpen(tasks, -1, states) ?? tasks[tasks.length - 1]) : undefined);
  return { here, go };
}
