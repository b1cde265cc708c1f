import type { Schemas } from "../../api/client";
import type { ChartRun } from "../../charts/decay";
import type { Rung } from "../../charts/LifeLadder";

type Reference = Schemas["ReferenceOut"];

/** References of earlier trials as rungs below those of the trial. */
export const referenceRungs = (references: readonly Reference[]): Rung[] =>
  references.map((each) => ({
    blade: each.code,
    mark: each.mark,
    grade: each.grade,
    ranked: true,
    edges: 0,
    words: each.says,
    scaled: each.says,
    estimate: each.estimate,
    low: each.low,
    high: each.high,
    open: null,
  }));

/** Their curves, where one was read, on the counts of the trial and as far as those go. */
export const referenceCurves = (references: readonly Reference[], lastCount: number): ChartRun[] =>
  references
    .filter((each) => each.curve !== null)
    .map((each) => ({
      id: `reference ${each.blade_id}`,
      blade: each.code,
      mark: each.mark,
      edge: 0,
      readings: [],
      band: each.curve && cutAt(each.curve, lastCount),
      life: null,
      leftOut: true,
    }));

function cutAt(curve: NonNullable<Reference["curve"]>, lastCount: number) {
  const points = curve.counts.filter((count) => count <= lastCount).length;
  return {
    counts: curve.counts.slice(0, points),
    middle_gf: curve.middle_gf.slice(0, points),
    low_gf: curve.low_gf.slice(0, points),
    high_gf: curve.high_gf.slice(0, points),
  };
}
