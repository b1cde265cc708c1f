import { describe, expect, it } from "vitest";
import { referenceCurves, referenceRungs } from "./references";

const HIGH = {
  blade_id: "av-05",
  code: "AV-05",
  mark: 4,
  grade: "1.3344",
  says: "the high reference, from earlier trials",
  estimate: 44,
  low: 28,
  high: 69,
  curve: {
    counts: [0, 20, 40],
    middle_gf: [150, 280, 380],
    low_gf: [140, 260, 350],
    high_gf: [160, 300, 410],
  },
};

describe("references of earlier trials", () => {
  it("are rungs that say where they are from", () => {
    const [rung] = referenceRungs([HIGH]);
    expect(rung).toMatchObject({ blade: "AV-05", estimate: 44, scaled: HIGH.says });
  });

  it("have a curve where one was read, as far as the trial went", () => {
    const curves = referenceCurves([HIGH, { ...HIGH, code: "AV-08", curve: null }], 25);
    expect(curves.map((curve) => curve.blade)).toEqual(["AV-05"]);
    expect(curves[0]?.band?.middle_gf).toEqual([150, 280]);
  });
});
