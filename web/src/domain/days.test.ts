import { describe, expect, it } from "vitest";
import { dayOf, isDay, isMoment, momentOf, readMoment } from "./days";

describe("days and times, written alike everywhere", () => {
  it("come back as they were written", () => {
    for (const text of ["2026-11-30 14:05", "2024-02-29 00:00", "1999-12-31 23:59"])
      expect(momentOf(readMoment(text) as Date)).toBe(text);
    expect(dayOf(readMoment("2026-01-02") as Date)).toBe("2026-01-02");
  });

  it("are told from what is none", () => {
    for (const text of ["30.11.2026", "2026-02-30", "2026-13-01", "2026-11-30 24:00", "soon", ""])
      expect([text, readMoment(text)]).toEqual([text, undefined]);
    expect(isDay("2026-11-30")).toBe(true);
    expect(isDay("2026-11-30 14:05")).toBe(false);
    expect(isMoment("2026-11-30 9:05")).toBe(true);
    expect(isMoment("2026-11-30")).toBe(false);
  });
});
