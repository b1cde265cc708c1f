/**
 * What was cut on one edge: its number, the zone, the cuts, and how far they wore it (0 fresh, 1
 * dull).
 */
export interface StripEdge {
  readonly number: number;
  readonly zoneFromMm: number | null;
  readonly zoneToMm: number | null;
  readonly cuts: number;
  readonly worn: number;
  readonly label: string;
  readonly live?: boolean;
  /** Planned stretches; what is taped is hatched, what is kept as a control stays an open frame. */
  readonly zones?: ReadonlyArray<{
    readonly fromMm: number;
    readonly toMm: number;
    readonly use: string;
  }>;
  /** Glints, rolls, chips and burr at their places. */
  readonly seen?: ReadonlyArray<{ readonly atMm: number; readonly kind: string }>;
  /** Caliper stations. */
  readonly stationsMm?: readonly number[];
}
