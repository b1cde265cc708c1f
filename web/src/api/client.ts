import createClient from "openapi-fetch";
import { noteDone, noteSent } from "./done";
import { folderBase } from "./folder";
import type { components, paths } from "./schema.gen";

/** The one thin client; its types are generated from the contract. */
const origin = typeof location === "undefined" ? "/" : location.origin;

export const api = clientAt(origin === "/" ? origin : `${origin}${folderBase}`);
/** The real folder, seen from the practice, too. */
export const homeApi = clientAt(origin);

function clientAt(baseUrl: string) {
  return createClient<paths>({
    baseUrl,
    fetch: (request) => {
      if (request.method !== "GET")
        noteSent(new URL(request.url, origin).pathname.slice(folderBase.length));
      return globalThis.fetch(request); // asked for at each call: tests put their own there
    },
  });
}

export type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];

/** A refusal of the server, with the field at fault. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }

  /** What to say at a field, if this refusal is about it: there it needs no name. */
  at(field: string): string | undefined {
    if (this.problem.field !== field) return undefined;
    return this.problem.faults?.find((fault) => fault.column === field)?.message ?? this.message;
  }
}

/** The server could not be reached; nothing is known to have been stored. */
export class Away extends Error {
  constructor() {
    super("Kessik's server does not answer. It will be tried again.");
  }
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The body of an answer, or the refusal thrown. */
export async function body<T>(request: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await request;
  } catch {
    throw new Away();
  }
  noteDone(answer.response);
  if (answer.response.ok) return answer.data as T;
  if (answer.response.status === 401) window.location.assign("/pair"); // this device was shut out
  const problem = answer.error as Problem | undefined;
  if (answer.response.status >= 502 && !problem?.detail) throw new Away();
  throw new Refused(
    problem?.detail
      ? problem
      : {
          type: "about:blank",
          title: "Not possible",
          status: answer.response.status,
          detail: "This did not work.",
          faults: [],
        },
  );
}
