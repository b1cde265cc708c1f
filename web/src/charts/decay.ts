import type { scaleLinear } from "d3-scale";

/** What a chart of decay is drawn from, and where its labels go. */
export interface ChartRun {
  readonly id: string;
  readonly blade: string;
  readonly mark: number;
  readonly edge: number;
  readonly readings: readonly { count: number; force_gf: number; struck: boolean }[];
  readonly band: {
    readonly counts: readonly number[];
    readonly middle_gf: readonly number[];
    readonly low_gf: readonly number[];
    readonly high_gf: readonly number[];
  } | null;
  readonly life: {
    readonly estimate: number | null;
    readonly low: number | null;
    readonly high: number | null;
  } | null;
  readonly leftOut: boolean;
}

export interface Limit {
  readonly stage: string;
  readonly gf: number;
}

/** The force limits of a method, for the chart. */
export const limitsOf = (method: {
  stages: readonly { name: string; limit_gf?: number | null }[];
}): Limit[] =>
  method.stages.flatMap((s) =>
    typeof s.limit_gf === "number" ? [{ stage: s.name, gf: s.limit_gf }] : [],
  );

export type Scale = ReturnType<typeof scaleLinear<number, number>>;
/** What the axes take of the drawing. */
export const PAD = { left: 46, right: 58, top: 26, bottom: 44 };

export const clamp = (v: number, a: number, b: number) => Math.min(Math.max(v, a), b);

/** The whole axis that runs are drawn on. */
export const wholeOf = (runs: readonly ChartRun[]): readonly [number, number] => [
  0,
  Math.max(4, ...runs.flatMap((run) => run.readings.map((each) => each.count))) * 1.06,
];

/** Where the curve of a run ends, in the drawing. */
export function endX(run: ChartRun, x: Scale, width: number): number {
  const last = run.band?.counts.at(-1) ?? run.readings.at(-1)?.count ?? 0;
  return Math.min(x(last), width - PAD.right);
}

/** Whether it is the first run of its blade. */
export function isFirst(run: ChartRun, runs: readonly ChartRun[]): boolean {
  return runs.find((r) => r.blade === run.blade)?.id === run.id;
}

/** The longest run of each blade. */
export function lastOfBlades(runs: readonly ChartRun[]): ChartRun[] {
  const byBlade = new Map<string, ChartRun>();
  for (const run of runs) {
    const known = byBlade.get(run.blade);
    if (!known || (run.band?.counts.at(-1) ?? 0) > (known.band?.counts.at(-1) ?? 0))
      byBlade.set(run.blade, run);
  }
  return [...byBlade.values()];
}

interface EndLabel {
  readonly run: ChartRun;
  readonly left: number;
  readonly right: number;
  readonly at: number;
}

const END_GAP = 17;
export const LETTER = 7;
const MOVED_AT_MOST = 40;

/**
 * Labels at the ends of their curves, none below the floor or on another; one that would come to
 * stand far from its curve is left to the ladder.
 */
export function placed(labels: readonly EndLabel[], floor: number): EndLabel[] {
  const done: EndLabel[] = [];
  for (const label of [...labels].sort((a, b) => b.at - a.at)) {
    let at = Math.min(label.at, floor);
    const beside = done.filter((d) => d.left < label.right && label.left < d.right);
    for (const other of beside) if (Math.abs(other.at - at) < END_GAP) at = other.at - END_GAP;
    if (Math.abs(at - Math.min(label.at, floor)) <= MOVED_AT_MOST) done.push({ ...label, at });
  }
  return done;
}

export interface Place {
  readonly at: number;
  readonly level: number;
}

const LABEL = { width: 96, height: 20 };

/** Whether a label at a level has fewer marks in its way at the left end than at the right. */
export function isFreer(
  marks: readonly Place[],
  level: number,
  left: number,
  right: number,
): boolean {
  const near = marks.filter((mark) => Math.abs(mark.level - level + 4) < LABEL.height);
  const atLeft = near.filter((mark) => mark.at < left + LABEL.width).length;
  const atRight = near.filter((mark) => mark.at > right - LABEL.width).length;
  return atLeft <= atRight;
}
