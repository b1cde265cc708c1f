const BEGINS_LIKE_FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^[+-]?\d+([.,]\d+)?$/;

/** What a cell says, in one line, as a spreadsheet takes it: no thin spaces, a plain minus. */
export function cellText(shown: string): string {
  return shown
    .replaceAll("\u2212", "-")
    .replaceAll("\u2011", "-")
    .replace(/[\u00a0\u2009\u202f]/g, " ")
    .replace(/\s*\n\s*/g, "; ")
    .trim();
}

/** Rows of cells for the clipboard: tabs between cells, and no cell that would be run. */
export const tsvOf = (rows: readonly (readonly string[])[]) =>
  rows.map((row) => row.map((cell) => safe(cell.replaceAll("\t", " "))).join("\t")).join("\n");

/** Rows of cells as CSV; what a spreadsheet would run as a formula gets an apostrophe. */
export const csvOf = (rows: readonly (readonly string[])[]) =>
  rows.map((row) => row.map((cell) => quoted(safe(cell))).join(",")).join("\r\n");

const safe = (cell: string) =>
  BEGINS_LIKE_FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell;

const quoted = (cell: string) => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
