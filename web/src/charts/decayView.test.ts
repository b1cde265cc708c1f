import { expect, test } from "vitest";
import { type CourseRun, commonAlong, drawnLimits, drawnRuns, PLAIN } from "./decayView";
import { moved, zoomed } from "./useChartView";

const run = (part: Partial<CourseRun> = {}): CourseRun => ({
  id: "r",
  blade: "AV-01",
  mark: 0,
  edge: 1,
  readings: [
    { count: 0, force_gf: 150, struck: false },
    { count: 10, force_gf: 300, struck: false },
  ],
  band: { counts: [0, 10], middle_gf: [150, 300], low_gf: [140, 280], high_gf: [160, 320] },
  life: { estimate: 10, low: 9, high: null },
  leftOut: false,
  along: [{ kind: "exposure", unit: "mm² per mm of edge", per_count: 12.5 }],
  startGf: 150,
  ...part,
});

test("a course goes by exposure and as a share of its start, its life with it", () => {
  const [drawn] = drawnRuns([run()], { ...PLAIN, by: "exposure", isScaled: true });
  expect(drawn?.readings[1]).toEqual({ count: 125, force_gf: 200, struck: false });
  expect(drawn?.band?.high_gf[1]).toBeCloseTo((320 * 100) / 150);
  expect(drawn?.life).toEqual({ estimate: 125, low: 112.5, high: null });
  expect(drawnLimits([{ stage: "dull", gf: 400 }], { ...PLAIN, isScaled: true })).toEqual([]);
});

test("what cannot be drawn so is left out, and an axis that one run lacks is not offered", () => {
  const unknown = run({ along: [], startGf: null });
  expect(drawnRuns([unknown], { ...PLAIN, by: "exposure" })).toEqual([]);
  expect(drawnRuns([unknown], { ...PLAIN, isScaled: true })).toEqual([]);
  expect(commonAlong([run(), unknown])).toEqual([]);
  expect(commonAlong([run(), { ...unknown, readings: [] }])).toHaveLength(1);
});

test("a part of a chart stays inside the whole", () => {
  expect(zoomed([0, 1], 0.5)).toEqual([0.25, 0.75]);
  expect(zoomed([0.25, 0.75], 4)).toEqual([0, 1]);
  expect(moved([0.25, 0.75], 1)).toEqual([0.5, 1]);
  expect(moved([0.25, 0.75], -9)).toEqual([0, 0.5]);
});
