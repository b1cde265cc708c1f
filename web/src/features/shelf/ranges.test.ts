import { describe, expect, it } from "vitest";
import { readRanges, typedRanges } from "./ranges";

describe("ranges as they are typed", () => {
  it("takes closed and open ranges, and gives them back as they were typed", () => {
    const text = "C 2-2.3\nSi -0.6\nV 0.15-";
    const read = readRanges(text, []);
    expect(read.map(({ range: r }) => [r.element, r.low_percent, r.high_percent])).toEqual([
      ["C", 2, 2.3],
      ["Si", null, 0.6],
      ["V", 0.15, null],
    ]);
    expect(typedRanges(read.map((r) => r.range))).toBe(text);
  });

  it("takes one figure as nominal, and shows it so", () => {
    const read = readRanges("Mo 1,0", []);
    expect(read.map(({ range: r }) => [r.low_percent, r.high_percent])).toEqual([[1, 1]]);
    expect(typedRanges(read.map((r) => r.range))).toBe("Mo 1");
  });

  it("keeps how a range that was not touched is known, and names a line that is none", () => {
    const known = readRanges("C 2-2.3", []).map((r) => ({
      ...r.range,
      standing: "standard" as const,
    }));
    const read = readRanges("C 2-2.3\nchromium, a lot", known);
    expect(read[0]?.range.standing).toBe("standard");
    expect(read[1]?.wrong).toContain("line 2");
  });
});
