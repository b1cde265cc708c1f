import type { Schemas } from "../../api/client";
import type { Look } from "./soak";

/** What was seen besides the area that a picture gives. */
export interface Seen {
  rust_percent: number | null;
  rust_low: number | null;
  rust_high: number | null;
  stain_percent: number | null;
  pits: number | null;
  deepest_pit_mm: number | null;
  discolouration: Look["discolouration"];
  gone_matte: boolean;
  pivot: string;
  lock: string;
  handle: string;
  how: Schemas["LookBody"]["how"];
  said: string;
  note: string;
}

export const emptySeen: Seen = {
  rust_percent: null,
  rust_low: null,
  rust_high: null,
  stain_percent: null,
  pits: null,
  deepest_pit_mm: null,
  discolouration: null,
  gone_matte: false,
  pivot: "",
  lock: "",
  handle: "",
  how: "typed",
  said: "",
  note: "",
};

export function seenOf(look: Look): Seen {
  const names = Object.keys(emptySeen) as (keyof Seen)[];
  return Object.fromEntries(names.map((name) => [name, look[name]])) as unknown as Seen;
}
