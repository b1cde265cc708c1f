import type { Schemas } from "../../api/client";
import { plural } from "../../domain/format";

export type Place = Schemas["AssayPlaceOut"];

/** When a parcel went and came back. */
export function whereabouts(batch: Schemas["BatchOut"]): string {
  if (batch.back_on) return `sent ${batch.sent_on || "some day"}, back ${batch.back_on}`;
  if (batch.sent_on) return `sent ${batch.sent_on}, not back yet`;
  return `not sent yet, ${plural(batch.blade_ids?.length ?? 0, "blade")}`;
}
