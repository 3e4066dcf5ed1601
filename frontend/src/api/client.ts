import createClient, { type Middleware } from "openapi-fetch";

import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** A failed request, with the sentence that the server gave. */
export class ApiProblem extends Error {
  /** `theirs`: what somebody else wrote meanwhile where one was writing. */
  constructor(
    readonly status: number,
    detail: string,
    readonly theirs: string | null = null,
  ) {
    super(detail);
  }
}

const OFFLINE = "The server cannot be reached. Check the connection; what you did is kept on this page.";
let token = "";

/** Remembers the token that every change needs. */
export function setToken(csrf: string): void {
  token = csrf;
}

export function csrfToken(): string {
  return token;
}

const protect: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRF-Token", token);
    return request;
  },
};

export const client = createClient<paths>({ baseUrl: "/", fetch: (request) => fetch(request) });
client.use(protect);

/** The body of an answer, or an `ApiProblem` with its sentence. */
export async function body<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let settled;
  try {
    settled = await answer;
  } catch {
    throw new ApiProblem(0, OFFLINE);
  }
  if (settled.data !== undefined) return settled.data;
  throw new ApiProblem(settled.response.status, sentence(settled.error), theirs(settled.error));
}

/** `body` for answers that hold pairs: the client's types widen those to lists, the OpenAPI file's do not. */
export function bodyAs<K extends keyof Schemas>(
  _name: K,
  answer: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<Schemas[K]> {
  return body(answer as Promise<{ data?: Schemas[K]; error?: unknown; response: Response }>);
}

function sentence(error: unknown): string {
  if (error && typeof error === "object" && "detail" in error && typeof error.detail === "string") return error.detail;
  return "This could not be done. Try again.";
}

function theirs(error: unknown): string | null {
  return error && typeof error === "object" && "theirs" in error && typeof error.theirs === "string" ? error.theirs : null;
}

/** The sentence to show for whatever was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : OFFLINE;
}
