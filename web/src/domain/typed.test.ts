import { describe, expect, it } from "vitest";
import { LIMITS } from "./limits.gen";
import { readTyped } from "./typed";

describe("what is typed", () => {
  it("is read as what the field holds, with a comma or a point", () => {
    expect(readTyped("number", " 6,4 ")).toEqual({ value: 6.4 });
    expect(readTyped(LIMITS.ph, "6.4")).toEqual({ value: 6.4 });
    expect(readTyped("day", "2026-11-30")).toEqual({ value: "2026-11-30" });
    expect(readTyped("text", " as it is ")).toEqual({ value: " as it is " });
  });

  it("is empty only where nothing stands there", () => {
    expect(readTyped("number", "  ")).toEqual({ value: null });
    expect(readTyped("day", "")).toEqual({ value: "" });
    expect(readTyped(LIMITS.ph, "6.4?")).toEqual({ wrong: "“6.4?” is not a number" });
    const long = readTyped(LIMITS.ph, "ü".repeat(300));
    expect(long).toEqual({ wrong: `“${"ü".repeat(40)}…” is not a number` });
    expect(readTyped("moment", "")).toMatchObject({ wrong: expect.stringContaining("14:05") });
  });

  it("holds to the table of limits", () => {
    expect(readTyped(LIMITS.ph, "15")).toEqual({ wrong: "15 is out of range: give 0 to 14" });
    expect(readTyped(LIMITS.edge_number, "0")).toMatchObject({ wrong: expect.any(String) });
    expect(readTyped(LIMITS.brine_c, "80")).toEqual({
      wrong: "80 is out of range: give 0 to 60 °C",
    });
  });
});
