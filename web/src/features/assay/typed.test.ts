import { describe, expect, it } from "vitest";
import { readLines } from "./typed";

describe("shots as they are typed", () => {
  it("takes spaces, tabs, semicolons, decimal commas and a limit of detection", () => {
    const read = readLines("Cr 12.10 0.08\n\nMo\t1,02\t0,02\nV <0.02\nFe; 84.5 %; ± 0.2");
    expect(read.map((r) => [r.line, r.element, r.percent, r.plusMinus, r.detected])).toEqual([
      [1, "Cr", 12.1, 0.08, true],
      [3, "Mo", 1.02, 0.02, true],
      [4, "V", 0.02, null, false],
      [5, "Fe", 84.5, 0.2, true],
    ]);
  });

  it("names the line that is none", () => {
    expect(readLines("Cr 12 0.1\nsomething else")[1]?.wrong).toContain("line 2");
  });
});
