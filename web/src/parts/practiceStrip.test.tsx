// @vitest-environment jsdom
import { useQueryClient } from "@tanstack/react-query";
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useLocation } from "react-router";
import { afterEach, beforeAll, expect, test, vi } from "vitest";
import { shown } from "../testing/page";

let Strip: () => React.ReactNode;
beforeAll(async () => {
  window.history.replaceState({}, "", "/practice/trials/t1/plan");
  Strip = (await import("./PracticeStrip")).PracticeStrip;
});
afterEach(cleanup);

const step = (kind: string, number: number, button: string, path: string) => ({
  kind,
  number,
  of: 6,
  title: "Cut",
  says: `why ${number}`,
  button,
  path,
  runs_cut: null,
});
const START = step("start", 3, "Start the first run", "/");
const COUNT = step("count", 4, "", "/runs/r1");

/** The strip looks again while the press is under way. */
function LooksAgain() {
  const queries = useQueryClient();
  return (
    <button type="button" onClick={() => queries.setQueryData(["practice"], COUNT)}>
      look
    </button>
  );
}
const Here = () => <output>{useLocation().pathname}</output>;

test("a step that is taken leads on, even where the strip was further before it was done", async () => {
  let done = () => {};
  const taken = new Promise<void>((resolve) => {
    done = resolve;
  });
  shown(
    <>
      <Strip />
      <LooksAgain />
      <Here />
    </>,
    { "GET /api/practice": START },
  );
  await screen.findByText("why 3", { exact: false });
  const server = globalThis.fetch;
  vi.stubGlobal("fetch", async (asked: Request) => {
    if (asked.method === "GET") return server(asked);
    await taken;
    return Response.json(COUNT);
  });
  await userEvent.click(screen.getByRole("button", { name: "Start the first run" }));
  await userEvent.click(screen.getByRole("button", { name: "look" }));
  expect(screen.getByText("why 4", { exact: false })).toBeTruthy();
  done();
  await vi.waitFor(() => expect(screen.getByText("/runs/r1").tagName).toBe("OUTPUT"));
});
