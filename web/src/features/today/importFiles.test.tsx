// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useLocation } from "react-router";
import { afterEach, expect, test } from "vitest";
import { LIMITS } from "../../domain/limits.gen";
import { shown } from "../../testing/page";
import { ImportFiles } from "./ImportFiles";

afterEach(cleanup);

const Here = () => <output>{useLocation().pathname}</output>;
const made = {
  trials: [{ id: "t1", name: "Raft rope" }],
  blades: ["AV-01"],
  notes: ["decimal comma in rope.series.csv"],
};
const page = (answers: Record<string, unknown>) =>
  shown(
    <>
      <ImportFiles />
      <Here />
    </>,
    answers,
  );
const choose = (file: File) => userEvent.upload(screen.getByLabelText("Files"), file);
const press = () => userEvent.click(screen.getByRole("button", { name: "Read and import" }));
const series = new File(["blade,count"], "rope.series.csv", { type: "text/csv" });

test("what came in is named, with where to read it", async () => {
  page({ "POST /api/imports": made });
  await choose(series);
  await press();
  const link = await screen.findByRole("link", { name: "Read the verdict on Raft rope" });
  expect(link.getAttribute("href")).toBe("/trials/t1/verdict");
  expect(screen.getByText("decimal comma in rope.series.csv")).toBeTruthy();
});

test("faults are told by file, line and column", async () => {
  const faults = [{ file: "rope.series.csv", line: 3, column: "count", message: "is no number" }];
  page({
    "POST /api/imports": {
      status: 422,
      problem: { type: "about:blank", detail: "1 fault", field: null, faults, fault_count: 1 },
    },
  });
  await choose(series);
  await press();
  expect((await screen.findByRole("alert")).textContent).toMatch(
    /rope.series.csv.*3.*count.*is no number/,
  );
});

test("a sheet of results goes on to its reader", async () => {
  const faults = [{ file: "rope.series.csv", line: 1, column: "", message: "a sheet" }];
  page({
    "POST /api/imports": {
      status: 422,
      problem: { type: "urn:kessik:sheet-of-results", detail: "a sheet", field: null, faults },
    },
  });
  await choose(series);
  await press();
  expect((await screen.findByText("/sheets")).tagName).toBe("OUTPUT");
});

test("a file that is too large is refused before it is sent", async () => {
  const { sent } = page({});
  const large = new File(["x"], "years.csv", { type: "text/csv" });
  Object.defineProperty(large, "size", { value: 2e6 * LIMITS.file_mb.most });
  await choose(large);
  expect(screen.getByRole("alert").textContent).toMatch(/^years.csv has \d+ MB/);
  await press();
  expect(sent).toEqual([]);
});
