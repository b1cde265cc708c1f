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
      worn: r.worn_share,
      live: r.status === "cutting" || r.status === "fresh" || r.status === "paused",
      label: `${counted(r.count)} ${r.count_unit}`,
    }));
}
