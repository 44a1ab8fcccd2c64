import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];
export type Spread = Schemas["Spread"];
export type Explained = Schemas["Explained"];

/** A refusal by the server, or the server not being there (code "unreachable"). */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

const UNREACHABLE: Problem = {
  status: 0,
  code: "unreachable",
  title: "the app's server does not answer",
  path: "",
  got: null,
  limits: {},
  params: {},
};

export const client = createClient<paths>({ baseUrl: "/" });

interface Answer<T> {
  data?: T;
  error?: unknown;
  response?: Response;
}

/** The data of a call, or an ApiError thrown. */
export async function call<T>(request: Promise<Answer<T>>): Promise<T> {
  let result: Answer<T>;
  try {
    result = await request;
  } catch {
    throw new ApiError(UNREACHABLE);
  }
  if (result.error !== undefined || result.data === undefined) {
    // something in between may answer in our shape, or in none
    const status = result.response?.status ?? UNREACHABLE.status;
    throw new ApiError(isProblem(result.error) ? { ...result.error, status } : UNREACHABLE);
  }
  return result.data;
}

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "code" in value && "title" in value;
}

export function problemOf(error: unknown): Problem {
  return error instanceof ApiError ? error.problem : { ...UNREACHABLE, title: String(error) };
}
