import { describe, expect, it } from "vitest";
import { inMm, isThatSo, shown, typedNumbers, typedStations } from "./quantities";

const angle = {
  name: "side_angle_deg", label: "angle per side", unit: "°", low: 5, high: 45,
  usual_low: 10, usual_high: 30,
  decimals: 1,
}; // biome-ignore format: one line reads better here

describe("what is typed about a quantity", () => {
  it("asks about unusual values and leaves impossible ones to the server", () => {
    expect(isThatSo(15, angle)).toBeUndefined();
    expect(isThatSo(8, angle)).toBe("Under 10° is rare. Is that so?");
    expect(isThatSo(35, angle)).toBe("Above 30° is rare. Is that so?");
    expect(isThatSo(60, angle)).toBeUndefined();
    expect(shown(15, angle)).toBe("15.0°");
  });

  it("reads single readings with decimal points or commas", () => {
    expect(typedNumbers("57.1 57,6; 58")).toEqual([57.1, 57.6, 58]);
    expect(typedNumbers("57 soft")).toBeUndefined();
    expect(typedNumbers("  ")).toEqual([]);
  });

  it("reads caliper stations in mm or thou", () => {
    expect(typedStations("16: 0.36 48 : 0,37", "mm")).toEqual([
      { position_mm: 16, value_mm: 0.36 },
      { position_mm: 48, value_mm: 0.37 },
    ]);
    expect(typedStations("16:15", "thou")?.[0]?.value_mm).toBeCloseTo(0.381, 12);
    expect(typedStations("0.36", "mm")).toBeUndefined();
    expect(inMm(15, "thou")).toBeCloseTo(0.381, 12);
    expect(inMm(null, "thou")).toBeNull();
  });
});
