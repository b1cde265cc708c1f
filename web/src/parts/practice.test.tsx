// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { shown } from "../testing/page";
import { PracticeStrip } from "./PracticeStrip";

vi.mock("../api/folder", async (real) => ({
  ...(await real<typeof import("../api/folder")>()),
  inPractice: true,
}));

afterEach(cleanup);

const step = {
  trial_id: "trial-0001",
  kind: "plan" as const,
  number: 2,
  of: 6,
  title: "Plan the edges",
  says: "Two edges a blade find only large differences.",
  button: "Plan 3 edges a blade",
  path: "/",
  runs_cut: [],
};

it("says the step and lets the virtual bench do its part", async () => {
  const { sent } = shown(<PracticeStrip />, {
    "GET /api/practice": step,
    "POST /api/practice/steps/plan": { ...step, kind: "start" },
  });
  await screen.findByText(/step 2 of 6. Plan the edges./);
  fireEvent.click(screen.getByRole("button", { name: "Plan 3 edges a blade" }));
  await waitFor(() => expect(sent.map((each) => each.path)).toEqual(["/api/practice/steps/plan"]));
});

it("leads to the place of a step that is elsewhere, and says how far the bench has cut", async () => {
  shown(<PracticeStrip />, {
    "GET /api/practice": { ...step, path: "/trials/trial-0001/plan", runs_cut: [2, 6] },
  });
  const link = await screen.findByRole("link", { name: "Go to: Plan the edges" });
  expect(link.getAttribute("href")).toBe("/trials/trial-0001/plan");
  expect(screen.getByText(/cutting run 3 of 6/)).toBeTruthy();
});
