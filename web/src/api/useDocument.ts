import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { type Answer, call, fetched } from "./call";
import type { Act, Problem } from "./types";

type Versioned = { version: number; undo: string | null; redo: string | null };

/** A document on the server: what is saved, what a change would make of it, and saving it in order. */
export type Held<T> = {
  saved: T | undefined;
  shown: T | undefined;
  missing: string | null;
  looking: boolean;
  conflict: Act[] | null;
  /** Why the last change is not saved yet: it is sent again until it is. */
  unsaved: Problem | null;
  act: (acts: Act[]) => Promise<Problem | null>;
  look: (acts: Act[] | null) => Promise<Problem | null>;
  undo: () => Promise<Problem | null>;
  redo: () => Promise<Problem | null>;
  takeTheirs: () => void;
  keepMine: () => Promise<Problem | null>;
};

const NONE: string[] = [];
const windows = "BroadcastChannel" in globalThis ? new BroadcastChannel("fennup") : null;

/** Whatever another window saves may show in this one: a project, the saw that it is reckoned on, the list of all. */
export function hearOtherWindows(client: QueryClient) {
  windows?.addEventListener("message", () => client.invalidateQueries());
}

/** Not reachable, locked, full: nothing is wrong with what was sent, and it may be saved a moment later. */
const NOT_YET = [0, 503, 507];
const SOON_MS = 1000;
const LATEST_MS = 15000;
const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

export function useDocument<T extends Versioned>(url: string, alsoStale: string[] = NONE): Held<T> {
  const client = useQueryClient();
  const query = useQuery({ queryKey: [url], queryFn: () => fetched<T>(url) });
  const [looked, setLooked] = useState<T | null>(null);
  const [conflict, setConflict] = useState<Act[] | null>(null);
  const [unsaved, setUnsaved] = useState<Problem | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const glance = useRef({ running: false, next: null as Act[] | null, turn: 0, ended: 0 });

  const settle = useCallback(
    (answer: Answer<T>, acts: Act[]): Problem | null => {
      if (answer.ok) {
        client.setQueryData([url], answer.data);
        for (const key of alsoStale) client.invalidateQueries({ queryKey: [key] });
        windows?.postMessage(url);
        return null;
      }
      if (answer.problem.status === 409) setConflict(acts);
      return answer.problem;
    },
    [client, url, alsoStale],
  );

  const sent = useCallback(
    async (path: string, acts: Act[]): Promise<Answer<T>> => {
      for (let wait = SOON_MS; ; wait = Math.min(2 * wait, LATEST_MS)) {
        const version = client.getQueryData<T>([url])?.version ?? 0;
        const answer = await call<T>(
          "POST",
          `${url}/${path}`,
          path === "acts" ? { version, acts } : { version },
        );
        const notYet = !answer.ok && NOT_YET.includes(answer.problem.status) ? answer.problem : null;
        setUnsaved(notYet);
        if (!notYet) return answer;
        await pause(wait);
      }
    },
    [client, url],
  );

  // Saves go one after another, each naming the version that the one before it made.
  const inTurn = useCallback(
    (path: string, acts: Act[]) => {
      const mine = queue.current.then(async () => settle(await sent(path, acts), acts));
      queue.current = mine.catch(() => null);
      return mine;
    },
    [sent, settle],
  );

  // One look at a time: while one is on its way only the newest wish waits, all older ones are dropped. What comes back is
  // shown even when a newer wish waits already, so that the drawing follows somebody who types on; not once looking has ended.
  const look = useCallback(
    async (acts: Act[] | null): Promise<Problem | null> => {
      const state = glance.current;
      const turn = ++state.turn;
      if (!acts) {
        state.next = null;
        state.ended = turn;
        setLooked(null);
        return null;
      }
      state.next = acts;
      if (state.running) return null;
      state.running = true;
      let problem: Problem | null = null;
      let seen = turn;
      while (state.next) {
        const wish: Act[] = state.next;
        state.next = null;
        seen = state.turn;
        const answer = await call<T>("POST", `${url}/look`, { acts: wish });
        problem = answer.ok ? null : answer.problem;
        if (answer.ok && seen > state.ended) setLooked(answer.data);
      }
      state.running = false;
      return seen === state.turn ? problem : null;
    },
    [url],
  );

  const act = useCallback(
    async (acts: Act[]) => {
      const problem = await inTurn("acts", acts);
      await look(null);
      return problem;
    },
    [inTurn, look],
  );

  return {
    saved: query.data,
    shown: looked ?? query.data,
    missing: query.isError ? query.error.message : null,
    looking: looked !== null,
    conflict,
    unsaved,
    act,
    look,
    undo: () => inTurn("undo", []),
    redo: () => inTurn("redo", []),
    takeTheirs: () => {
      setConflict(null);
      client.invalidateQueries({ queryKey: [url] });
    },
    keepMine: async () => {
      const mine = conflict ?? [];
      setConflict(null);
      await client.refetchQueries({ queryKey: [url] });
      return mine.length ? inTurn("acts", mine) : null;
    },
  };
}
