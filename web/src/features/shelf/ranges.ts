import type { Schemas } from "../../api/client";
import { quoted } from "../../domain/format";

type Range = Schemas["RangeBody"];

export interface ReadRange {
  readonly line: number;
  readonly range: Range;
  readonly wrong?: string;
}

const NOMINAL = /^([A-Za-z]{1,2})\s+(\d+(?:[.,]\d+)?)$/;
const RANGE = /^([A-Za-z]{1,2})\s+(\d+(?:[.,]\d+)?)?\s*(?:-|–|to)\s*(\d+(?:[.,]\d+)?)?$/;

/** Ranges as people type them: an element a line, “Cr 11.0-13.0”, “Si -0.60”, “V 0.15-”; one
 * figure, “Mo 1.0”, is nominal. */
export function readRanges(text: string, known: readonly Range[]): ReadRange[] {
  return text
    .split("\n")
    .map((line, i) => ({ line: i + 1, said: line.trim() }))
    .filter(({ said }) => said !== "")
    .map(({ line, said }) => readRange(line, said, known));
}

function readRange(line: number, said: string, known: readonly Range[]): ReadRange {
  const [, nominal = "", figure] = NOMINAL.exec(said) ?? [];
  const [, element = "", low, high] = nominal
    ? [said, nominal, figure, figure]
    : (RANGE.exec(said) ?? []);
  const range: Range = {
    element,
    low_percent: numberOf(low),
    high_percent: numberOf(high),
    standing: "claimed",
    source: "",
  };
  if (element === "")
    return { line, range, wrong: `line ${line}: ${quoted(said)} is not like “Cr 11.0-13.0”` };
  const before = known.find((other) => other.element.toLowerCase() === element.toLowerCase());
  const isSame =
    before?.low_percent === range.low_percent && before?.high_percent === range.high_percent;
  return { line, range: before && isSame ? before : range };
}

function numberOf(text: string | undefined): number | null {
  return text === undefined ? null : Number(text.replace(",", "."));
}

/** Ranges as they are typed, to be changed. */
export function typedRanges(ranges: readonly Range[]): string {
  return ranges
    .map((r) =>
      r.low_percent != null && r.low_percent === r.high_percent
        ? `${r.element} ${r.low_percent}`
        : `${r.element} ${r.low_percent ?? ""}-${r.high_percent ?? ""}`,
    )
    .join("\n");
}
