import type { Schemas } from "../../api/client";
import { FORCE, rowOf } from "../../domain/checks";
import { counted, plural } from "../../domain/format";
import type { Shown } from "./projection";

type RunData = Schemas["RunOut"];

/** What to do next, large. */
export function nextWords(run: RunData, shown: Shown): string {
  const { state } = run;
  if (state.status === "stopped") return "This run has ended";
  if (state.status === "abandoned") return "This run was abandoned";
  if (shown.due) {
    const row = rowOf(run.method.check_rows, state.asked);
    const force = row.key === FORCE.key;
    const next = shown.readingsWanted > 1 ? ", the next at" : " at";
    const place = shown.placeMm === null ? "" : `${next} ${counted(shown.placeMm)} mm`;
    if (shown.confirming) return force ? "Read once more to confirm" : "Look once more to confirm";
    if (!force) {
      const times =
        row.result !== "damage" && shown.readingsWanted > 1
          ? `, ${row.is_judged ? plural(shown.readingsWanted, "try", "tries") : plural(shown.readingsWanted, "reading")}`
          : "";
      return `Check now: ${row.asks}${times}${place}`;
    }
    if (shown.count === 0 && shown.readings.length === 0)
      return (
        `Wipe the ${run.after_strop_of ? "stropped" : "fresh"} edge, take ` +
        `${plural(shown.readingsWanted, "reading")}${place}`
      );
    return `Check now: wipe, ${plural(shown.readingsWanted, "reading")}${place}`;
  }
  if (shown.planning || shown.nextAt === null)
    return shown.planning ? "Working out the next check" : "Go on cutting";
  const more = shown.nextAt - shown.count;
  const wanted = state.plan?.next_count === shown.nextAt ? state.plan.readings : run.card.readings;
  const readings = wanted > 1 && state.asked === FORCE.key ? `, ${wanted} readings` : "";
  return more > 0 ? `Check after ${counted(more)} more${readings}` : "Go on cutting";
}

/** Why, and what was passed on the way. */
export function whyWords(run: RunData, shown: Shown): string {
  const { state } = run;
  const passed = Object.entries(state.stages).map(
    ([stage, at]) => `${stage} lost at ${counted(at)}`,
  );
  const why = state.plan && !shown.planning ? state.plan.why : "";
  const unread = state.not_understood
    ? `${plural(state.not_understood, "event is", "events are")} not understood and left out, ` +
      "see the list"
    : "";
  const text = [why, ...passed, unread].filter(Boolean).join("; ");
  return text ? `${text.charAt(0).toUpperCase()}${text.slice(1)}.` : "";
}

/** Where the next crossing is expected. */
export function bandOf(run: RunData): [number, number] | null {
  const { band_low = null, band_high = null } = run.state.plan ?? {};
  return band_low === null || band_high === null ? null : [band_low, band_high];
}

/** What the edge has borne so far: exposure where rope and zone are known, else the count. */
export function exposureWords(run: RunData, count: number): string {
  const each = run.exposure_per_cut_mm2_per_mm;
  return each === null
    ? `${counted(count)} ${run.count_unit}`
    : `${Math.round(each * count)} mm²/mm`;
}

/** As large as the room allows, never under 160 px. */
export function countSize(text: string, width: number): string {
  const room = width > 860 ? width - 600 : width - 40;
  return `${Math.max(160, Math.min(width > 860 ? 340 : 210, room / (0.66 * text.length)))}px`;
}

/** What the lamp showed in this run, at its places on the edge. */
export const seenHere = (run: RunData) =>
  run.state.checks.flatMap((c) =>
    rowOf(run.method.check_rows, c.kind).result === "damage" &&
    c.position_mm !== null &&
    c.seen &&
    c.seen !== "clean" &&
    !c.struck
      ? [{ atMm: c.position_mm, kind: c.seen }]
      : [],
  );
