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

/**
 * Show a part of the screens against a server that answers by "GET /api/...", or by a beginning such
 * as "PUT /api/blades/*": what it was sent is given back as it comes.
 */
export function shown(part: ReactNode, answers: Answers = {}) {
  vi.stubGlobal("ResizeObserver", NoSizes);
  vi.stubGlobal("EventSource", NoNews);
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const path = new URL(request.url, "http://kessik").pathname;
    const text = await request.text();
    if (request.method !== "GET")
      sent.push({ method: request.method, path, body: text ? JSON.parse(text) : null });
    return answerOf(found(answers, `${request.method} ${path}`));
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
