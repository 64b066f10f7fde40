import createClient from "openapi-fetch";
import type { paths } from "../../types/schema";
import type { Problem } from "./types";

export type Answer<T> = { ok: true; data: T } | { ok: false; problem: Problem };

const unreachable: Problem = {
  type: "about:blank",
  title: "No answer",
  status: 0,
  detail: "Fennup does not answer. What you saved is safe; what you typed stays here. Is it still running?",
  errors: [],
};

/** Every request that there is, with its types from the OpenAPI document. */
export const api = createClient<paths>({
  baseUrl: "/",
  // A save outlives the page: nothing is lost when the window closes right after typing.
  fetch: (request: Request) => fetch(new Request(request, { keepalive: request.method !== "GET" })),
});

/** What came of a request: its data, or the problem; never an exception. */
export async function answered<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await request;
    if (response.ok) return { ok: true, data: data as T };
    return { ok: false, problem: (error as Problem | undefined) ?? unreachable };
  } catch {
    return { ok: false, problem: unreachable };
  }
}

/** A refusal or no answer, for the query library. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The data, or an exception for the query library. */
export async function fetched<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const answer = await answered(request);
  if (!answer.ok) throw new Refused(answer.problem);
  return answer.data;
}
