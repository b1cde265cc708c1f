// @vitest-environment jsdom
import { cleanup, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { SheetAsked } from "../../api/record";
import { refusal, shown } from "../../testing/page";
import { Sheets } from "./Sheets";

afterEach(cleanup);

const reading = {
  shape: "totals",
  head_rows: 1,
  roles: ["blade", "count"],
  count_unit: "cuts",
  decimal_comma: false,
} as unknown as NonNullable<SheetAsked["reading"]>;
const seen = {
  name: "rope.csv",
  reading,
  heads: ["knife", "cuts"],
  rows: [
    ["knife", "cuts"],
    ["AV-01", "1,5"],
  ],
  row_count: 2,
  roles: [],
  lines: [{ row: 2, blade: "AV-01", edge: 3, says: "over after 1.5 cuts", status: "new" }],
  blades: [{ code: "AV-01", steel: "1.2436", known: "there" }],
  count_unit: "cuts",
  counted: [false, true],
  forced: [false, false],
  changes: [{ place: 1, before: "1,5", after: "1.5", why: "decimal" }],
  remembered: [],
  notes: ["3 rows are empty"],
  school: "paper_stop_rope",
  new: 4,
  there: 0,
  faulty: 0,
  fault_count: 0,
  faults: [],
  totals_without_gap: 0,
};
const made = {
  kept: 4,
  skipped: 0,
  replaced: 0,
  trial_id: "trial-01",
  trial_name: "rope",
  blades: ["AV-01", "AV-02"],
  new_blades: ["AV-02"],
};
const press = (name: string | RegExp) => userEvent.click(screen.getByRole("button", { name }));
const paste = (text: string) => {
  screen.getByLabelText("Cells copied out of a sheet, heads and all").focus();
  return userEvent.paste(text);
};
const look = (part: object = {}, answers: Record<string, unknown> = {}) =>
  shown(<Sheets />, {
    "POST /api/sheet-previews": { ...seen, ...part },
    "POST /api/sheet-imports": made,
    ...answers,
  });

describe("results from a sheet", () => {
  it("are read before anything is saved, each guess that changes a value said", async () => {
    const { sent } = look();
    await paste("knife\tcuts\nAV-01\t40");
    expect(await screen.findByText("rope.csv: 4 runs to save.")).toBeTruthy();
    expect(screen.getByRole("region", { name: "Values that change" }).textContent).toMatch(
      /cuts: 1,5 becomes 1.5/,
    );
    expect(screen.getByText("3 rows are empty")).toBeTruthy();
    expect(sent).toHaveLength(1);
  });

  it("say where they went", async () => {
    look();
    await paste("knife\tcuts\nAV-01\t40");
    await screen.findByText("rope.csv: 4 runs to save.");
    await press("Save 4 runs");
    expect(
      await screen.findByText("4 runs saved in rope, of AV-01, AV-02; new on the shelf: AV-02."),
    ).toBeTruthy();
    expect(screen.getByRole("link", { name: "Read the verdict" }).getAttribute("href")).toBe(
      "/trials/trial-01/verdict",
    );
  });

  it("ask for the gap of checks first, and take that nobody knows it", async () => {
    const { sent } = look({ totals_without_gap: 2 });
    await paste("knife\tcuts\nAV-01\t40");
    await screen.findByText("rope.csv: 4 runs to save.");
    await press("Save 4 runs");
    expect(screen.getByRole("alert").textContent).toMatch(/^How often did you check\?/);
    expect(sent).toHaveLength(1);
    await userEvent.click(screen.getByLabelText("The gap of the checks is not known for 2 runs"));
    await press("Save 4 runs");
    await screen.findByText(/4 runs saved/);
  });

  it("cannot be saved with a faulty row, and a sheet that is none is refused in words", async () => {
    look({ faulty: 1, fault_count: 1 });
    await paste("knife\tcuts\nAV-01\tmany");
    await screen.findByText("rope.csv: 4 runs to save, 1 to be corrected.");
    expect(screen.getByRole("button", { name: "Save 4 runs" })).toHaveProperty("disabled", true);
    cleanup();
    look({}, { "POST /api/sheet-previews": refusal("file", "this is a picture, not a sheet") });
    await paste("a\tb\n1\t2");
    expect(await screen.findByText("this is a picture, not a sheet")).toBeTruthy();
  });
});
