// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, test } from "vitest";
import { shown } from "../../testing/page";
import type { CheckDraft } from "./draft";
import { ReadingScatter } from "./ReadingScatter";

afterEach(cleanup);

function field(scatter: string, gauge: object | null) {
  const changes: Partial<CheckDraft>[] = [];
  const check = { kind: "force", readings: "1", material: "test line", scatter, own: null };
  shown(<ReadingScatter check={check} onChange={(part) => changes.push(part)} />, {
    "GET /api/methods": { ready: [], own: [], gauge },
  });
  return changes;
}
const studied = {
  percent: 4.2,
  says: "Line tester, studied on 2026-12-01: readings scatter by 4.2 %",
};

test("without a study the usual scatter is told, with the way to one's own", async () => {
  field("", null);
  expect(screen.getByLabelText(/^Readings scatter by/).getAttribute("placeholder")).toBe(
    "usual: 7",
  );
  const link = await screen.findByRole("link", { name: "gauge study" });
  expect(link.getAttribute("href")).toBe("/gauge");
});

test("what a study found is taken in one press, and then no more offered", async () => {
  const changes = field("", studied);
  await userEvent.click(await screen.findByRole("button", { name: "Use 4.2 % here" }));
  expect(changes).toEqual([{ scatter: "4.2" }]);
  cleanup();
  field("4.2", studied);
  expect(await screen.findByText(`${studied.says}.`)).toBeTruthy();
  expect(screen.queryByRole("button", { name: /^Use/ })).toBeNull();
});
