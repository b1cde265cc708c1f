import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactNode } from "react";
import { MemoryRouter } from "react-router";
import { vi } from "vitest";
import { UndoMessages } from "../ui/Undo";

/** What a page sent: the method, the path, and the body. */
export interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}
type Answers = Readonly<Record<string, unknown>>;

class NoSizes {
  observe() {}
  unobserve() {}
  disconnect() {}
}
class NoNews {
  close() {}
}

/** What a browser has and the simulated one of tests lacks. */
function likeABrowser() {
  vi.stubGlobal("ResizeObserver", NoSizes);
  vi.stubGlobal("EventSource", NoNews);
  Element.prototype.hasPointerCapture ??= () => false;
  Element.prototype.scrollIntoView ??= () => undefined;
  Blob.prototype.arrayBuffer ??= () => Promise.resolve(new ArrayBuffer(1));
}

/**
 * Show a part of the screens against a server that answers by "GET /api/...", or by a beginning such
 * as "PUT /api/blades/*": what it was sent is given back as it comes.
 */
export function shown(part: ReactNode, answers: Answers = {}) {
  likeABrowser();
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (asked: Request | string, form?: { body: FormData }) => {
    const { method, url } = typeof asked === "string" ? { method: "POST", url: asked } : asked;
    const path = new URL(url, "http://kessik").pathname;
    const body =
      typeof asked === "string" ? Object.fromEntries(form?.body ?? []) : await read(asked);
    if (method !== "GET") sent.push({ method, path, body });
    return answerOf(found(answers, `${method} ${path}`));
  });
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const view = render(
    <QueryClientProvider client={queries}>
      <MemoryRouter>
        <UndoMessages>{part}</UndoMessages>
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return { ...view, sent };
}

async function read(asked: Request): Promise<unknown> {
  const text = await asked.text();
  return text ? JSON.parse(text) : null;
}

/** A refusal, as the server words it at a field. */
export const refusal = (field: string, detail: string) => ({
  status: 422,
  problem: { type: "about:blank", title: "Refused", status: 422, detail, field },
});

function found(answers: Answers, asked: string): unknown {
  const begins = (name: string) => name.endsWith("*") && asked.startsWith(name.slice(0, -1));
  const name = Object.keys(answers).find((each) => each === asked || begins(each));
  return name === undefined ? undefined : answers[name];
}

function answerOf(answer: unknown): Response {
  const refused = answer as { status?: number; problem?: unknown } | undefined;
  if (refused?.problem) return Response.json(refused.problem, { status: refused.status ?? 422 });
  return Response.json(answer ?? {});
}
