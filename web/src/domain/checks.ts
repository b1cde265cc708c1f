import { CHECKS } from "./words.gen";

/** What is known of one check, as the method of a run tells it. */
export interface CheckRow {
  readonly key: string;
  readonly name: string;
  readonly label: string;
  readonly asks: string;
  readonly result: string;
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly is_judged: boolean;
  readonly is_own: boolean;
  readonly outcomes: ReadonlyArray<{ key: string; label: string; letter: string }>;
}
export type CheckRows = readonly CheckRow[];

export const FORCE = CHECKS[0];

/** The row of a check: of the method, else of those that every method can have. */
export const rowOf = (rows: CheckRows, kind: string): CheckRow =>
  rows.find((row) => row.key === kind) ?? CHECKS.find((row) => row.key === kind) ?? FORCE;

/** What a number of a check can be, in words: `1 to 5000 gf`. */
export const canBe = ({ least, most, unit }: CheckRow): string =>
  `${least} to ${most} ${unit}`.trim();
