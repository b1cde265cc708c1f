import { describe, expect, it } from "vitest";
import {
  type Column,
  type Form,
  firstRows,
  linesOf,
  pasted,
  rowOf,
  shownColumns,
} from "./paperRows";

const column = (key: string, usual = true) => ({ key, usual }) as Column;
const COLUMNS = [
  column("blade"),
  column("edge"),
  column("fine"),
  column("working"),
  column("minutes", false),
];
const FORM = {
  arms: [
    { code: "A", next_edge: 3 },
    { code: "B", next_edge: 1 },
  ],
  columns: COLUMNS,
} as Form;

describe("lines of a paper record", () => {
  it("begin with every blade at its next edge, or at the one that verifies it", () => {
    expect(firstRows(FORM).map((row) => row.cells)).toEqual([
      { blade: "A", edge: "3" },
      { blade: "B", edge: "1" },
    ]);
    expect(firstRows(FORM, true)[0]?.cells).toEqual({ blade: "A", edge: "4", verifies: "3" });
  });

  it("are sent where they say a result, and left alone where they only name a blade", () => {
    const rows = [
      rowOf({ blade: "A", edge: "3", note: "windy" }),
      rowOf({ blade: "B", edge: "1", fine: "30" }),
      { ...rowOf({ blade: "C" }), readings: "0 150, 5 260" },
    ];
    expect(linesOf(rows).map((line) => line.cells?.blade)).toEqual(["B", "C"]);
  });

  it("show a rare column where something stands in it", () => {
    const keys = (rows: ReturnType<typeof rowOf>[], all = false) =>
      shownColumns(FORM, rows, all).map((each) => each.key);
    expect(keys([rowOf({ blade: "A" })])).not.toContain("minutes");
    expect(keys([rowOf({ minutes: "12" })])).toContain("minutes");
    expect(keys([], true)).toContain("minutes");
  });

  it("take what was copied from a table, from one cell on, with more rows where it needs them", () => {
    const rows = [rowOf({ blade: "A", edge: "3" }), rowOf({ blade: "B", edge: "1" })];
    const text = "30\t25\r\n31\t 26 \textra\textra\n40\t\n";
    const found = pasted(rows, COLUMNS.slice(0, 4), { row: 0, key: "fine" }, text);
    expect(found.map((row) => row.cells)).toEqual([
      { blade: "A", edge: "3", fine: "30", working: "25" },
      { blade: "B", edge: "1", fine: "31", working: "26" },
      { fine: "40", working: "" },
    ]);
    expect(found[0]?.id).toBe(rows[0]?.id);
    expect(rows[0]?.cells).toEqual({ blade: "A", edge: "3" });
  });
});
