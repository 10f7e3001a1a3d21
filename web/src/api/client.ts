/** The generated client with what every call needs: the CSRF token, plain errors, what they mean. */
import createClient, { type Middleware } from "openapi-fetch";
import { door } from "../core/door";
import type { Fate } from "../core/world";
import type { paths } from "./schema";
import type { Conflict, Problem } from "./types";

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

const sendToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
};

/**
 * What can be sent once more, made again of what it was made of: a copy kept of every request takes
 * a millisecond under a hand, and as much memory as is sent.
 */
class Repeatable extends Request {
  constructor(
    private readonly to: RequestInfo | URL,
    private readonly how?: RequestInit,
  ) {
    super(to, how);
  }

  again(): Request {
    return new Request(this.to, this.how);
  }
}

/** A token that was lost or has changed is fetched anew, and the request sent once more. */
async function withFreshToken(request: Request): Promise<Response> {
  const first = await fetch(request);
  if (first.status !== 403 || request.method === "GET") return first;
  await fetch("/api/account/me");
  const again = (request as Repeatable).again();
  again.headers.set("X-CSRFToken", csrfToken());
  return fetch(again);
}

export const api = createClient<paths>({
  baseUrl: "",
  fetch: withFreshToken,
  Request: Repeatable,
});
api.use(sendToken);

/** An answer other than success, with the server's own sentence where it has one. */
export class Answered extends Error {
  readonly status: number;
  readonly problem: Problem;
  /** Whether it is this application that answered, not something on the way to it. */
  readonly ours: boolean;
  constructor(problem: Problem, ours: boolean) {
    super(problem.place ? `${problem.place}: ${problem.detail}` : problem.detail);
    this.status = problem.status;
    this.problem = problem;
    this.ours = ours;
  }
}

/** The server named what is wrong with what it was asked. */
export class Refused extends Answered {}

/** No answer came at all: what a browser says of that is its own affair, and in its own tongue. */
export class Unreached extends Error {
  constructor(cause: unknown) {
    super("The server cannot be reached just now.", { cause });
  }
}

/** For `catch`: what a browser throws of a lost connection, in words of ours. */
export function unreached(error: unknown): never {
  throw error instanceof TypeError ? new Unreached(error) : error;
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer; throws an Answered, Unreached, or what ended the call from this side. */
export async function must<T>(call: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await call.catch(unreached);
  const { status, headers } = response;
  if (response.ok) return data as T;
  const ours = headers.get("content-type")?.startsWith("application/problem+json") ?? false;
  const fallback = {
    type: "about:blank",
    title: response.statusText,
    status,
    detail: `The server could not answer (${status}). Try again in a moment.`,
  };
  const problem: Problem = ours ? { ...fallback, ...(error as object) } : fallback;
  if (ours && status === 401 && !response.url.endsWith("/sign-in")) door.close();
  if (ours && (status === 400 || status === 422)) throw new Refused(problem, ours);
  throw new Answered(problem, ours);
}

/**
 * `must` for answers that hold points: the client's own reading of the schema loosens
 * fixed-length lists, so the generated type is named instead.
 */
export function exactly<T>(call: Promise<Answer<unknown>>): Promise<T> {
  return must(call as Promise<Answer<T>>);
}

/** What an error means for an edit that was on its way: only a named fault is a refusal. */
export function fateOf(error: unknown): Fate {
  if (error instanceof Refused) return "refused";
  if (!(error instanceof Answered) || !error.ours) return "away";
  if (error.status === 409 && "current" in error.problem) return "conflict";
  if (error.status === 401) return "stranger";
  return error.status === 404 ? "gone" : "away";
}

export function conflictOf(error: unknown): Conflict {
  return (error as Answered).problem as Conflict;
}
