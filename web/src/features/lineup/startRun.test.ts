import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { blade, edge, run } from "../../testing/records";
import { edgeAhead, sharpening } from "./startRun";

type LineUp = Schemas["LineUpOut"];

const plainly = { practice: false, otherZone: false };
const lineUp = (part: Partial<LineUp>) => ({ runs: [], used_up: [], ...part }) as unknown as LineUp;
const own = blade({ edges: [edge()] });

describe("the edge of a run", () => {
  it("is the next sharpening once the last was cut", () => {
    const cut = lineUp({ runs: [run()], used_up: ["edge-0003"] });
    expect(edgeAhead(cut, own, plainly)).toMatchObject({ needsNew: true, number: 4 });
    expect(edgeAhead(lineUp({}), own, plainly)).toMatchObject({ needsNew: false, number: 3 });
    expect(edgeAhead(lineUp({}), blade(), plainly)).toMatchObject({ needsNew: true, number: 4 });
  });

  it("is a cut one in a practice run, or on another zone of it", () => {
    const zoned = run({ zone_from_mm: 12, zone_to_mm: 40 });
    const cut = lineUp({ runs: [zoned], used_up: ["edge-0003"] });
    expect(edgeAhead(cut, own, { practice: true, otherZone: false }).needsNew).toBe(false);
    const beside = edgeAhead(cut, own, { practice: false, otherZone: true });
    expect(beside).toMatchObject({ hasRoom: true, needsNew: false, fromMm: null });
  });

  it("is cut where it was planned, else where the blade was cut before", () => {
    const planned = edge({ zones: [{ from_mm: 12, to_mm: 76, use: "cut", name: "" }] });
    expect(edgeAhead(lineUp({}), blade({ edges: [planned] }), plainly)).toMatchObject({
      fromMm: 12,
      toMm: 76,
    });
    const before = run({ edge_id: "edge-0002", zone_from_mm: 20, zone_to_mm: 50 });
    expect(edgeAhead(lineUp({ runs: [before] }), own, plainly)).toMatchObject({
      fromMm: 20,
      toMm: 50,
    });
  });
});

it("a sharpening says only what was typed of it", () => {
  expect(sharpening(null, null)).toEqual({});
  expect(sharpening(29.6, 4)).toEqual({
    minutes: 4,
    steps: [{ abrasive: "as recorded", strokes_per_side: 30 }],
  });
});
