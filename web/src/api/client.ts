import createClient from "openapi-fetch";
import { answered } from "./answers";
import { installation } from "./installation";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["ProblemOut"];

/** A refusal of the server, in its own words. */
export class Refused extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail);
    this.name = "Refused";
    this.problem = problem;
  }
  is(code: string): boolean {
    return this.problem.type === `/problems/${code}`;
  }
  /** What may be taken later as it is: a fault of the server, a full disk, a session to be opened. */
  isPassing(): boolean {
    return this.problem.status >= 500 || this.is("not_entered") || this.is("not_from_page");
  }
}

/** The server could not be reached; nothing is known about the request. */
export class Unreachable extends Error {
  constructor() {
    super("Tumbrel is not answering. Is it still running? Your changes are kept on this page.");
    this.name = "Unreachable";
  }
}

export function csrfToken(): string {
  const name = `tumbrel_csrf_${installation()}=`;
  const found = document.cookie.split("; ").find((one) => one.startsWith(name));
  return found?.slice(name.length) ?? "";
}

export const client = createClient<paths>({ baseUrl: "/" });
client.use({
  onRequest({ request }) {
    request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
  onResponse() {
    answered();
  },
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "detail" in value && "type" in value;
}

/** The data of an answer, or a thrown Refused or Unreachable. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  const got = await answer.catch(() => {
    throw new Unreachable();
  });
  if (got.response.ok) return got.data as T;
  if (isProblem(got.error)) throw new Refused(got.error);
  throw new Refused({
    type: "/problems/failed",
    title: "failed",
    status: got.response.status,
    detail: `Tumbrel failed at this (${String(got.response.status)}). Nothing was changed.`,
    faults: [],
    used_by: [],
    current: null,
  });
}

/** Post a body as it is. The request is on its way before this returns, and before React draws. */
export function sendAtOnce<Answer>(
  address: string,
  type: string,
  body: BodyInit,
  signal: AbortSignal | null = null,
): Promise<Answer> {
  return unwrap(
    fetch(address, {
      method: "POST",
      headers: { "Content-Type": type, "X-CSRFToken": csrfToken() },
      body,
      signal,
    }).then(async (response) => {
      answered();
      const told: unknown = await response.json().catch(() => null);
      return response.ok ? { data: told as Answer, response } : { error: told, response };
    }),
  );
}
