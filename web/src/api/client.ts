/** The generated client with the two things every call needs: the CSRF token and plain errors. */
import createClient, { type Middleware } from "openapi-fetch";
import type { paths } from "./schema";
import type { Problem } from "./types";

function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]+)/.exec(document.cookie)?.[1] ?? "";
}

const sendToken: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: "" });
api.use(sendToken);

/** An answer other than success, with the server's own sentence. */
export class Refused extends Error {
  readonly status: number;
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.place ? `${problem.place}: ${problem.detail}` : problem.detail);
    this.status = problem.status;
    this.problem = problem;
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Refused; a lost connection throws what fetch threw. */
export async function must<T>(call: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await call;
  if (response.ok) return data as T;
  const fallback = {
    type: "about:blank",
    title: response.statusText,
    status: response.status,
    detail: `The server answered ${response.status}. Nothing was changed; try again.`,
  };
  throw new Refused({ ...fallback, ...(error as object) });
}

/**
 * `must` for answers that hold points: the client's own reading of the schema loosens
 * fixed-length lists, so the generated type is named instead.
 */
export function exactly<T>(call: Promise<Answer<unknown>>): Promise<T> {
  return must(call as Promise<Answer<T>>);
}
