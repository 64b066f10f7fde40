import type { Problem } from "./types";

export type Answer<T> = { ok: true; data: T } | { ok: false; problem: Problem };

const unreachable: Problem = {
  type: "about:blank",
  title: "No answer",
  status: 0,
  detail: "Fennup does not answer. What you saved is safe; what you typed stays here. Is it still running?",
  errors: [],
};

/** One request. A refusal comes back as a problem, never as an exception; an aborted request does throw. */
export async function call<T>(
  method: string,
  url: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<Answer<T>> {
  let response: Response;
  try {
    response = await fetch(url, {
      method,
      signal,
      // A save outlives the page: nothing is lost when the window closes right after typing.
      keepalive: method !== "GET",
      headers: method === "GET" ? {} : { "Content-Type": "application/json" },
      body: method === "GET" ? undefined : JSON.stringify(body ?? {}),
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    return { ok: false, problem: unreachable };
  }
  if (response.status === 204) return { ok: true, data: undefined as T };
  const data = await response.json().catch(() => unreachable);
  return response.ok ? { ok: true, data: data as T } : { ok: false, problem: data as Problem };
}

/** The data, or an exception for the query library. */
export async function fetched<T>(url: string): Promise<T> {
  const answer = await call<T>("GET", url);
  if (!answer.ok) throw new Error(answer.problem.detail);
  return answer.data;
}
