import type { Schemas } from "../../api/client";

type LineUp = Schemas["LineUpOut"];
type Blade = Schemas["BladeOut"];

/** What a run of a blade could be on: its last edge, or the next one where that was used up. */
export interface EdgeAhead {
  readonly last: Blade["edges"][number] | undefined;
  /** A run of the same edge that has a zone of its own leaves room beside it. */
  readonly hasRoom: boolean;
  readonly needsNew: boolean;
  readonly number: number;
  /** The zone that was planned for it, or cut before. */
  readonly fromMm: number | null;
  readonly toMm: number | null;
  /** The first result of the blade, which a further run may verify. */
  readonly earlier: Schemas["RunBrief"] | undefined;
}

export function edgeAhead(
  lineUp: LineUp,
  blade: Blade | undefined,
  { practice, otherZone }: { practice: boolean; otherZone: boolean },
): EdgeAhead {
  const last = blade?.edges.at(-1);
  const own = lineUp.runs.filter((run) => run.arm_id === blade?.arm_id && !run.practice);
  const there = own.filter((run) => run.edge_id === last?.id);
  const hasRoom = there.length > 0 && there.every((run) => run.zone_from_mm !== null);
  const sharesEdge = hasRoom && otherZone;
  const isCut = last !== undefined && lineUp.used_up.includes(last.id);
  const needsNew = !last || (isCut && !practice && !sharesEdge);
  const planned = needsNew ? undefined : last?.zones.find((zone) => zone.use === "cut");
  const before = sharesEdge ? undefined : own.findLast((run) => run.zone_from_mm !== null);
  return {
    last,
    hasRoom,
    needsNew,
    number: needsNew ? (blade?.next_edge ?? 1) : (last?.number ?? 1),
    fromMm: planned?.from_mm ?? before?.zone_from_mm ?? null,
    toMm: planned?.to_mm ?? before?.zone_to_mm ?? null,
    earlier: own.find((run) => run.status === "stopped"),
  };
}

/** What was typed of a sharpening, as its edge keeps it. */
export const sharpening = (strokes: number | null, minutes: number | null) => ({
  ...(minutes === null ? {} : { minutes }),
  ...(strokes === null
    ? {}
    : { steps: [{ abrasive: "as recorded", strokes_per_side: Math.round(strokes) }] }),
});
