import type { Schemas } from "../api/client";
import type { RowTyped, useRows } from "../ui/useRows";

export type ZoneUse = NonNullable<Schemas["ZoneBody"]["use"]>;

/** How a zone is read. */
export const ZONE_KINDS = {
  from_mm: { needed: "say where it begins" },
  to_mm: { needed: "say where it ends" },
  use: { word: "zoneUses" },
  name: "text",
} as const;
export type ZoneRows = ReturnType<typeof useRows<typeof ZONE_KINDS>>;

/** A zone as its fields show it. */
export const zoneTyped = (
  zone: Schemas["ZoneBody"],
  place: number,
): RowTyped<typeof ZONE_KINDS> => ({
  id: `zone ${place}`,
  from_mm: String(zone.from_mm),
  to_mm: String(zone.to_mm),
  use: zone.use ?? "cut",
  name: zone.name ?? "",
});

/** Where zones begin and end, mm from the heel; nothing where a number cannot be read. */
export type Ends = ReadonlyArray<readonly [number | null | undefined, number | null | undefined]>;

/** The longest stretch that no zone takes, in whole mm. */
export function longestFree(numbers: Ends, length: number): [number, number] {
  const taken = numbers
    .filter(
      (pair): pair is [number, number] =>
        typeof pair[0] === "number" && typeof pair[1] === "number",
    )
    .toSorted((a, b) => a[0] - b[0]);
  let best: [number, number] = [0, 0];
  let at = 0;
  for (const [from, to] of [...taken, [length, length] as const]) {
    if (from - at > best[1] - best[0]) best = [at, from];
    at = Math.max(at, to);
  }
  return best[1] > best[0] ? best : [0, Math.min(20, length)];
}
