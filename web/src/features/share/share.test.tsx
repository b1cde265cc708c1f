// @vitest-environment jsdom

import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, beforeEach, expect, test } from "vitest";
import { leftOut, rememberLeftOut, toggled } from "../../domain/leftOut";
import { shown } from "../../testing/page";
import { BladeQuestions } from "./BladeQuestions";

const question = (n: number, rest: object = {}) => ({
  one: `one-${n}`,
  other: `other-${n}`,
  says: `your AV-0${n} and AV-0${n} of Mira`,
  facts: "same code and grade",
  nothing_differs: true,
  is_same: null,
  ...rest,
});

beforeEach(() => localStorage.clear());
afterEach(cleanup);

test("owners and prices stay at home until something else is chosen, and that is remembered", () => {
  expect(leftOut()).toEqual(["owners", "prices"]);
  rememberLeftOut(toggled(leftOut(), "prices"));
  expect(leftOut()).toEqual(["owners"]);
  rememberLeftOut([]);
  expect(leftOut()).toEqual([]);
});

test("each pair is asked about; one press answers those that differ in nothing", async () => {
  const open = [1, 2, 3].map((n) => question(n));
  const other = question(4, { nothing_differs: false, facts: "same code; different grade" });
  const { sent } = shown(<BladeQuestions />, {
    "GET /api/blade-questions": [...open, other],
    "PUT /api/blade-questions": [],
  });
  await screen.findByText("Are your AV-04 and AV-04 of Mira one blade?");
  await userEvent.click(screen.getByRole("button", { name: /One blade for each of the 3 pairs/ }));
  await expect.poll(() => sent.length).toBe(3);
  expect(sent.map((each) => each.body)).toEqual(
    open.map(({ one, other: two }) => ({ one, other: two, is_same: true })),
  );
});

test("what was said stands there, and can be split again", async () => {
  const { sent } = shown(<BladeQuestions />, {
    "GET /api/blade-questions": [question(1, { is_same: true })],
    "DELETE /api/blade-questions/*": [],
  });
  await userEvent.click(await screen.findByRole("button", { name: "Split again" }));
  await expect.poll(() => sent[0]?.path).toBe("/api/blade-questions/one-1/other-1");
});

test("where nobody shares a blade nothing is asked", async () => {
  const { container } = shown(<BladeQuestions />, { "GET /api/blade-questions": [] });
  expect(container.textContent).not.toContain("same blade");
});
