import type { Schemas } from "./client";

type Sent = Schemas["MethodBody"];
type Told = Exclude<keyof Schemas["OwnMethodOut"], keyof Sent>;

/** What the server says of a method besides; the compiler asks for every one. */
const TOLD: Record<Told, true> = {
  id: true,
  number: true,
  ends_when: true,
  checked: true,
  stage_words: true,
  check_rows: true,
  all_cautions: true,
  line_id: true,
  archived: true,
};

/** A method as it is sent: without what the server says of it. */
export const plainMethod = (method: Schemas["MethodOut"]): Sent =>
  Object.fromEntries(Object.entries(method).filter(([name]) => !(name in TOLD))) as unknown as Sent;
