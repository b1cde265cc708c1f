import type { Schemas } from "./client";

/** A method as it is sent: without what the server says of it. */
export function plainMethod(method: Schemas["MethodOut"]): Schemas["MethodBody"] {
  const {
    id: _i,
    number: _n,
    ends_when: _e,
    checked: _c,
    stage_words: _s,
    all_cautions: _a,
    ...plain
  } = method;
  return plain;
}
