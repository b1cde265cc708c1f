import { counted } from "./format";

interface RunLike {
  readonly edge: number;
  readonly blade_id: string;
  readonly practice: boolean;
  readonly status: string;
  readonly count: number;
  readonly count_unit: string;
  readonly zone_from_mm: number | null;
  readonly zone_to_mm: number | null;
  readonly worn_share: number;
}

/** What an edge strip shows of a blade's runs: one lane an edge, practice left out. */
export function stripEdges(runs: readonly RunLike[], bladeId: string) {
  return runs
    .filter((r) => r.blade_id === bladeId && !r.practice)
    .map((r) => ({
      number: r.edge,
      zoneFromMm: r.zone_from_mm,
      zoneToMm: r.zone_to_mm,
      cuts: r.count,
      worn: r.worn_share,
      live: r.status === "cutting" || r.status === "fresh" || r.status === "paused",
      label: `${counted(r.count)} ${r.count_unit}`,
    }));
}

/** The count that fills the zone of every strip of a trial, so that strokes compare by eye. */
export function fullCuts(runs: readonly RunLike[]): number {
  return Math.max(20, ...runs.filter((r) => !r.practice).map((r) => r.count));
}
