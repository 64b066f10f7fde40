import { type QueryClient, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { type Answer, Refused } from "./call";
import { refresh } from "./refresh";
import type { Act, Problem } from "./types";

type Versioned = { version: number; undo: string | null; redo: string | null };

/** How a document is read, changed and looked at: `look` may answer with less than all of it, `merged` puts that in. */
export type DocumentApi<T, L> = {
  key: unknown[];
  read: () => Promise<T>;
  act: (version: number, acts: Act[]) => Promise<Answer<T>>;
  undo: (version: number) => Promise<Answer<T>>;
  redo: (version: number) => Promise<Answer<T>>;
  look: (acts: Act[], card: string | null) => Promise<Answer<L>>;
  merged: (saved: T, looked: L) => T;
};

/** A document on the server: what is saved, what a change would make of it, and saving it in order. */
export type Held<T> = {
  saved: T | undefined;
  shown: T | undefined;
  missing: string | null;
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

const windows = "BroadcastChannel" in globalThis ? new BroadcastChannel("fennup") : null;

/** Whatever another window saves may show in this one: a project, the workshop that it is reckoned for, the list of all. */
export function hearOtherWindows(client: QueryClient) {
  windows?.addEventListener("message", () => client.invalidateQueries());
}

/** Not reachable, locked, full: nothing is wrong with what was sent, and it may be saved a moment later. */
const NOT_YET = [0, 503, 507];
const SOON_MS = 1000;
const LATEST_MS = 15000;

const notYet = (error: Error | null) =>
  error instanceof Refused && NOT_YET.includes(error.problem.status) ? error.problem : null;

type Change = { how: "act" | "undo" | "redo"; acts: Act[] };

/** `stale`: what else shows something that follows from this document. */
export function useDocument<T extends Versioned, L>(
  of: DocumentApi<T, L>,
  stale: unknown[][],
  card: string | null = null,
  enabled = true,
): Held<T> {
  const client = useQueryClient();
  const query = useQuery({ queryKey: of.key, queryFn: of.read, enabled });
  const [looked, setLooked] = useState<L | null>(null);
  const [conflict, setConflict] = useState<Act[] | null>(null);
  const glance = useRef({ running: false, next: null as Act[] | null, turn: 0, ended: 0 });
  const opened = useRef(card);
  opened.current = card;

  // Saves go one after another, each naming the version that the one before it made, and are sent again until they arrive.
  const saving = useMutation<T, Error, Change>({
    scope: { id: JSON.stringify(of.key) },
    networkMode: "always",
    mutationFn: async ({ how, acts }) => {
      const version = client.getQueryData<T>(of.key)?.version ?? 0;
      const answer = await (how === "act" ? of.act(version, acts) : of[how](version));
      if (!answer.ok) throw new Refused(answer.problem);
      return answer.data;
    },
    retry: (_, error) => notYet(error) !== null,
    retryDelay: (attempt) => Math.min(SOON_MS * 2 ** attempt, LATEST_MS),
    onSuccess: (data) => {
      client.setQueryData(of.key, data);
      for (const queryKey of stale) refresh(client, queryKey);
      windows?.postMessage(of.key.join(" "));
    },
  });
  const { mutateAsync } = saving;
  const change = useCallback(
    async (how: Change["how"], acts: Act[]): Promise<Problem | null> => {
      try {
        await mutateAsync({ how, acts });
        return null;
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        if (error.problem.status === 409) setConflict(acts);
        return error.problem;
      }
    },
    [mutateAsync],
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
        const answer = await of.look(wish, opened.current);
        problem = answer.ok ? null : answer.problem;
        if (answer.ok && seen > state.ended) setLooked(answer.data);
      }
      state.running = false;
      return seen === state.turn ? problem : null;
    },
    [of],
  );

  const act = useCallback(
    async (acts: Act[]) => {
      const problem = await change("act", acts);
      await look(null);
      return problem;
    },
    [change, look],
  );

  return {
    saved: query.data,
    shown: looked && query.data ? of.merged(query.data, looked) : query.data,
    missing: query.isError ? query.error.message : null,
    conflict,
    unsaved: saving.isPending ? notYet(saving.failureReason) : null,
    act,
    look,
    undo: useCallback(() => change("undo", []), [change]),
    redo: useCallback(() => change("redo", []), [change]),
    takeTheirs: () => {
      setConflict(null);
      client.invalidateQueries({ queryKey: of.key });
    },
    keepMine: async () => {
      const mine = conflict ?? [];
      setConflict(null);
      await client.refetchQueries({ queryKey: of.key });
      return mine.length ? change("act", mine) : null;
    },
  };
}
