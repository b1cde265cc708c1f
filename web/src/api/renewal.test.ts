import { describe, expect, it } from "vitest";
import { isTouched } from "./renewal";

describe("what is read again after a change", () => {
  it("is what it may have touched", () => {
    const soak = ["/api/soaks/soak-1/looks/look-1"];
    expect(isTouched("soak", soak)).toBe(true);
    expect(isTouched("today", soak)).toBe(true);
    expect(isTouched("verdict", soak)).toBe(false);
    expect(isTouched("plan", ["/api/lots/lot-1"])).toBe(true);
    expect(isTouched("line-up", ["/api/grades/1.2379"])).toBe(true);
  });

  it("is everything where a blade or a trial changed", () => {
    for (const head of ["soak", "verdict", "assays", "plan", "paper-form"])
      expect(isTouched(head, ["/api/blades/blade-1"])).toBe(true);
  });

  it("is never what cannot change", () => {
    expect(isTouched("quantities", ["/api/blades/blade-1"])).toBe(false);
  });

  it("is what any of several changes touched, and all where a path is new", () => {
    const both = ["/api/pairing/code", "/api/soaks/soak-1"];
    expect(isTouched("soak", both)).toBe(true);
    expect(isTouched("verdict", both)).toBe(false);
    expect(isTouched("verdict", ["/api/something-new"])).toBe(true);
  });
});
