import type { ChartRun, Limit } from "./decay";

export interface Along {
  readonly kind: string;
  readonly unit: string;
  readonly per_count: number;
}
export interface CourseRun extends ChartRun {
  readonly along: readonly Along[];
  readonly startGf: number | null;
}
export interface DecayWay {
  /** What the courses go by: counts, length or exposure. */
  readonly by: string;
  /** Forces as shares of each edge's start. */
  readonly isScaled: boolean;
  /** Sharp below instead of above. */
  readonly isTurned: boolean;
}

export const PLAIN: DecayWay = { by: "count", isScaled: false, isTurned: false };

/** What all runs that were read can be drawn along, besides their counts. */
export function commonAlong(runs: readonly CourseRun[]): Along[] {
  const read = runs.filter((run) => run.readings.length > 0);
  return (read[0]?.along ?? []).filter((each) =>
    read.every((run) => run.along.some((own) => own.kind === each.kind && own.unit === each.unit)),
  );
}

/** Runs as they are to be drawn; one that cannot be drawn so is left out. */
export function drawnRuns(runs: readonly CourseRun[], way: DecayWay): ChartRun[] {
  return runs.flatMap((run) => {
    const per = way.by === "count" ? 1 : run.along.find((a) => a.kind === way.by)?.per_count;
    const share = way.isScaled ? run.startGf && 100 / run.startGf : 1;
    return per && share ? [scaled(run, per, share)] : [];
  });
}

function scaled(run: ChartRun, per: number, share: number): ChartRun {
  const along = (counts: readonly number[]) => counts.map((count) => count * per);
  const force = (values: readonly number[]) => values.map((value) => value * share);
  const times = (value: number | null) => (value === null ? null : value * per);
  const { band, life } = run;
  return {
    ...run,
    readings: run.readings.map((each) => ({
      ...each,
      count: each.count * per,
      force_gf: each.force_gf * share,
    })),
    band: band && {
      counts: along(band.counts),
      middle_gf: force(band.middle_gf),
      low_gf: force(band.low_gf),
      high_gf: force(band.high_gf),
    },
    life: life && {
      estimate: times(life.estimate),
      low: times(life.low),
      high: times(life.high),
    },
  };
}

/** A limit in gf is no one line where every edge is measured by its own start. */
export const drawnLimits = (limits: readonly Limit[], way: DecayWay) =>
  way.isScaled ? [] : limits;
