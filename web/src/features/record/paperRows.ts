import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";

export type Form = Schemas["PaperFormOut"];
export type Column = Schemas["PaperColumnOut"];

/** One line as typed. */
export interface Row {
  readonly id: string;
  readonly cells: Record<string, string>;
  readonly readings: string;
}

const NOT_RESULTS = new Set([
  "blade", "edge", "check_every", "block", "verifies", "note", "round", "zone",
  "edge_length_used_mm", "strokes", "minutes",
]); // biome-ignore format: names, several a line
export const isResult = (key: string) => !NOT_RESULTS.has(key);

export const rowOf = (cells: Record<string, string>): Row => ({
  id: newId(),
  cells,
  readings: "",
});

/** A first row for every arm at its next edge, or, to verify those, one at the edge after. */
export function firstRows(form: Form, verifying = false): Row[] {
  return form.arms.map(({ code, next_edge: edge }) =>
    rowOf(
      verifying
        ? { blade: code, edge: String(edge + 1), verifies: String(edge) }
        : { blade: code, edge: String(edge) },
    ),
  );
}

/** Rows that say something; the others are left alone. */
export const saying = (rows: readonly Row[]) =>
  rows.filter(
    (row) =>
      row.readings.trim() || Object.entries(row.cells).some(([k, v]) => isResult(k) && v.trim()),
  );

/** The lines as they are sent. */
export const linesOf = (rows: readonly Row[]): Schemas["PaperLineBody"][] =>
  saying(rows).map(({ id, cells, readings }) => ({ id, cells, readings }));

/** The columns that are shown: the usual ones, those asked for, and those that something stands in. */
export const shownColumns = (form: Form, rows: readonly Row[], all: boolean): Column[] =>
  form.columns.filter((c) => c.usual || all || rows.some((row) => row.cells[c.key]?.trim()));

/** What was copied from a table, laid over the cells from one on; more rows where it needs them. */
export function pasted(
  rows: readonly Row[],
  columns: readonly Column[],
  at: { readonly row: number; readonly key: string },
  text: string,
): Row[] {
  const first = columns.findIndex((column) => column.key === at.key);
  const lines = text.replace(/\r/g, "").replace(/\n$/, "").split("\n");
  const found = [...rows];
  lines.forEach((line, down) => {
    const there = found[at.row + down] ?? rowOf({});
    const cells = { ...there.cells };
    line.split("\t").forEach((cell, right) => {
      const column = columns[first + right];
      if (column) cells[column.key] = cell.trim();
    });
    found[at.row + down] = { ...there, cells };
  });
  return found;
}
