import { type CheckRow, canBe } from "../../domain/checks";
import { quoted, typedNumber } from "../../domain/format";
import { LIMITS } from "../../domain/limits.gen";

const PLACES = LIMITS.position_mm;

/** What was typed at the bench: readings, the place of a finding, or why it is neither. */
export type TypedReadings =
  | { readonly values: readonly number[] }
  | { readonly placeMm: number }
  | { readonly wrong: string };

/**
 * Readings typed with strokes or spaces between them; null where nothing stands there. While a place
 * is asked for, one number within an edge's length is that place.
 */
export function typedReadings(
  typed: string,
  {
    reads,
    isPlace,
    stropped,
  }: {
    reads: CheckRow;
    isPlace: boolean;
    stropped: boolean;
  },
): TypedReadings | null {
  const parts = typed.split(/[/;+\s]+/).filter(Boolean);
  if (parts.length === 0) return null;
  const values = parts.map(typedNumber);
  const [first] = values;
  const isWithinEdge = typeof first === "number" && first >= PLACES.least && first <= PLACES.most;
  if (isPlace && values.length === 1 && isWithinEdge) return { placeMm: first };
  if (reads.is_judged && !stropped) return { wrong: "Use the keys of this check, not figures" };
  const bad = parts.find((_, i) => {
    const value = values[i];
    return typeof value !== "number" || value < reads.least || value > reads.most;
  });
  if (bad !== undefined)
    return { wrong: `${quoted(bad)} cannot be a reading; ${canBe(reads)} can` };
  return { values: values as number[] };
}
