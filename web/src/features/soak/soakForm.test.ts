import { describe, expect, it } from "vitest";
import { readTyped } from "../../domain/typed";
import { type Method, PHASE_KINDS, phasesTyped } from "./soakForm";

const METHOD = {
  name: "Fresh water, then brine",
  medium: "sprayed",
  hours: 144,
  look_h: [72, 144],
  stages: ["wiped"],
  phases: [
    { medium: "fresh water", until_h: 72 },
    { medium: "brine", until_h: 144, salt_percent: 3.5, side: "right", scale: "rust" },
  ],
} as Method;

describe("phases of a soak in its form", () => {
  it("show what a phase leaves open as what it means", () => {
    const [fresh, brine] = phasesTyped(METHOD);
    expect(fresh).toMatchObject({ until_h: "72", side: "both", scale: "rust", salt_percent: "" });
    expect(brine).toMatchObject({ salt_percent: "3.5", side: "right" });
  });

  it("need the hour they end at, and take a decimal comma", () => {
    expect(readTyped(PHASE_KINDS.until_h, "")).toHaveProperty("wrong");
    expect(readTyped(PHASE_KINDS.salt_percent, "3,5")).toEqual({ value: 3.5 });
  });
});
