import { counted } from "./format";

interface RunLike {
  readonly edge: number;
  readonly arm_id: string;
  readonly practice: boolean;
  readonly status: string;
  readonly count: number;
  readonly count_unit: string;
  readonly zone_from_mm: number | null;
  readonly zone_to_mm: number | null;
  readonly worn_share: number;
}

interface EdgeLike {
  readonly id?: string;
  readonly number: number;
  readonly zones: ReadonlyArray<{
    readonly from_mm: number;
    readonly to_mm: number;
    readonly use?: string;
  }>;
  readonly damage: ReadonlyArray<{ readonly position_mm: number; readonly kind: string }>;
  readonly measurements: ReadonlyArray<{
    readonly quantity: string;
    readonly in_use: boolean;
    readonly details: { readonly stations?: ReadonlyArray<{ readonly position_mm: number }> };
  }>;
}

export interface BladeLike {
  readonly arm_id: string;
  readonly edges: readonly EdgeLike[];
}

interface Lane extends ReturnType<typeof edgeMarks> {
  readonly number: number;
  readonly zoneFromMm: number | null;
  readonly zoneToMm: number | null;
  readonly cuts: number;
  readonly worn: number;
  readonly label: string;
  readonly live?: boolean;
}

/**
 * What an edge strip shows of a blade: one lane a run, and the newest edge unless it was used up in
 * another trial.
 */
export function stripEdges(
  runs: readonly RunLike[],
  blade: BladeLike,
  usedUp: readonly string[] = [],
): Lane[] {
  const edge = (number: number) => blade.edges.find((e) => e.number === number);
  const cut = runs
    .filter((r) => r.arm_id === blade.arm_id && !r.practice)
    .map((r) => ({
      number: r.edge,
      zoneFromMm: r.zone_from_mm,
      zoneToMm: r.zone_to_mm,
      cuts: r.count,
      worn: r.worn_share,
      live: r.status === "cutting" || r.status === "fresh" || r.status === "paused",
      label: `${counted(r.count)} ${r.count_unit}`,
      ...edgeMarks(edge(r.edge)),
    }));
  const newest = blade.edges.at(-1);
  if (!newest || usedUp.includes(newest.id ?? "")) return cut;
  if (cut.some((lane) => lane.number >= newest.number)) return cut;
  return [...cut, freshLane(newest)];
}

/** Only the lanes that were cut in these runs. */
export const cutLanes = (runs: readonly RunLike[], blade: BladeLike): Lane[] =>
  stripEdges(
    runs,
    blade,
    blade.edges.map((e) => e.id ?? ""),
  );

/** The lane of an edge that was not cut yet. */
export function freshLane(edge: EdgeLike, label = "fresh"): Lane {
  const zone = edge.zones.find((z) => z.use === "cut");
  return {
    number: edge.number,
    zoneFromMm: zone?.from_mm ?? null,
    zoneToMm: zone?.to_mm ?? null,
    cuts: 0,
    worn: 0,
    label,
    ...edgeMarks(edge),
  };
}

/** Zones, stations and what was seen on one edge of a blade, for its strip. */
function edgeMarks(edge: EdgeLike | undefined) {
  return {
    zones: (edge?.zones ?? []).map((z) => ({
      fromMm: z.from_mm,
      toMm: z.to_mm,
      use: z.use ?? "cut",
    })),
    seen: (edge?.damage ?? []).map((d) => ({ atMm: d.position_mm, kind: d.kind })),
    stationsMm: (edge?.measurements ?? [])
      .filter((m) => m.quantity === "thickness_behind_edge_mm" && m.in_use)
      .flatMap((m) => (m.details.stations ?? []).map((s) => s.position_mm)),
  };
}

/** The same of the edge at the bench, where nothing else is known of the blade. */
export const marksAtBench = (edge: {
  readonly zones: EdgeLike["zones"];
  readonly damage: EdgeLike["damage"];
  readonly stations_mm: readonly number[];
}) => ({
  ...edgeMarks({ ...edge, number: 0, measurements: [] }),
  stationsMm: [...edge.stations_mm],
});

/** The count that fills the zone of every strip of a trial, so that strokes compare by eye. */
export function fullCuts(runs: readonly RunLike[]): number {
  return Math.max(20, ...runs.filter((r) => !r.practice).map((r) => r.count));
}
