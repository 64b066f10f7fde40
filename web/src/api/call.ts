import createClient from "openapi-fetch";
import type { paths } from "../../types/schema";
import type { Problem } from "./types";

export type Answer<T> = { ok: true; data: T } | { ok: false; problem: Problem };

const problem = (title: string, detail: string): Problem => ({
  type: "about:blank",
  title,
  status: 0,
  detail,
  errors: [],
});

const unreachable = problem(
  "No answer",
  "Fennup does not answer. What you saved is safe; what you typed stays here. Is it still running?",
);
const unreadable = (status: number) => ({
  ...problem(
    "Unreadable",
    `Fennup answered (${status}), but not in words that this page can read. Try again.`,
  ),
  status,
});
/** Not 0: sending it again by itself would only fail again. */
const OWN_FAULT = 599;
const ownFault = (error: unknown) => ({
  ...problem(
    "A fault in this page",
    `This page made a mistake of its own: ${error instanceof Error ? error.message : error}. What you saved is safe. Load the page again.`,
  ),
  status: OWN_FAULT,
});

/** What all saves on their way together may weigh to outlive the page: browsers refuse more than 64 KiB, with all their heads. */
const MOST_KEPT_BYTES = 48 * 1024;

/** A request that knows what it weighs. */
class Weighed extends Request {
  readonly weight: number;
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(input, init);
    this.weight = typeof init?.body === "string" ? new Blob([init.body]).size : 0;
  }
}

/** The request never came to the server, or its answer not back. */
class NoAnswer extends Error {}

let keptBytes = 0;

/** The whole answer. A small save outlives the page, so that nothing is lost when the window closes right after typing. */
async function sent(request: Request): Promise<Response> {
  const bytes = request instanceof Weighed ? request.weight : 0;
  const keepalive = request.method !== "GET" && keptBytes + bytes <= MOST_KEPT_BYTES;
  const kept = keepalive ? bytes : 0;
  keptBytes += kept;
  try {
    const response = await fetch(request, { keepalive });
    const body = await response.arrayBuffer();
    return new Response(body.byteLength > 0 ? body : null, response);
  } catch (error) {
    throw new NoAnswer(String(error));
  } finally {
    keptBytes -= kept;
  }
}

/** Every request that there is, with its types from the OpenAPI document. */
export const api = createClient<paths>({ baseUrl: "/", Request: Weighed, fetch: sent });

/** What came of a request: its data, or the problem; never an exception. */
export async function answered<T>(
  request: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Answer<T>> {
  try {
    const { data, error, response } = await request;
    if (response.ok) return { ok: true, data: data as T };
    const told = error as Partial<Problem> | undefined;
    return {
      ok: false,
      problem: told?.detail !== undefined ? (told as Problem) : unreadable(response.status),
    };
  } catch (error) {
    if (error instanceof NoAnswer) return { ok: false, problem: unreachable };
    console.error(error);
    return { ok: false, problem: ownFault(error) };
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
