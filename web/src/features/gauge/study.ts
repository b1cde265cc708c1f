import { typedNumber } from "../../domain/format";

/** One reading of a study: of which part, by whom, and what was typed. */
export interface Row {
  readonly part: string;
  readonly operator: string;
  readonly typed: string;
}
export interface Study {
  readonly unit: string;
  readonly rows: readonly Row[];
}

export const EMPTY: Study = { unit: "gf", rows: [] };

/** Names as they are typed, parted by commas. */
export const namesIn = (text: string): string[] =>
  text
    .split(",")
    .map((name) => name.trim())
    .filter(Boolean);

export const isUnread = (row: Row): boolean => typedNumber(row.typed) === undefined;

/** The readings that were typed and can be read. */
export const readingsOf = (rows: readonly Row[]) =>
  rows.flatMap(({ part, operator, typed }) => {
    const value = typedNumber(typed);
    return typeof value === "number" ? [{ part, operator, value }] : [];
  });
