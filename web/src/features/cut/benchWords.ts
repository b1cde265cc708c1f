import type { Schemas } from "../../api/client";
import { counted, plural } from "../../domain/format";
import type { Shown } from "./projection";

type RunData = Schemas["RunOut"];

/** What to do next, large. */
export function nextWords(run: RunData, shown: Shown): string {
  const { state } = run;
  if (state.status === "stopped") return "This run has ended";
  if (state.status === "abandoned") return "This run was abandoned";
  if (shown.due) {
    if (state.confirmation_wanted) return "Read once more to confirm";
    if (shown.count === 0 && shown.readings.length === 0)
      return `Wipe the fresh edge, take ${plural(shown.readingsWanted, "reading")}`;
    return `Check now: wipe, ${plural(shown.readingsWanted, "reading")}`;
  }
  if (shown.planning || !state.plan) return "Working out the next check";
  const more = state.plan.next_count - shown.count;
  const readings = state.plan.readings > 1 ? `, ${state.plan.readings} readings` : "";
  return more > 0 ? `Check after ${counted(more)} more${readings}` : "Cut on";
}

/** Why, and what was passed on the way. */
export function whyWords(run: RunData, shown: Shown): string {
  const { state } = run;
  if (state.status === "paused") return "On a break. The next cut goes on.";
  const passed = Object.entries(state.stages).map(([stage, at]) => `${stage} passed at ${counted(at)}`);
  const why = state.plan && !shown.planning ? state.plan.why : "";
  const text = [why, ...passed].filter(Boolean).join("; ");
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
  return each === null ? `${counted(count)} ${run.count_unit}` : `${Math.round(each * count)} mm²/mm`;
}

/** How far the edge is worn, for drawing: its last readings on the way to the dull limit. */
export function wornShare(shown: Shown, dullGf: number): number {
  const forces = shown.readings.filter((r) => !r.struck).map((r) => r.forceGf);
  const [first] = forces;
  if (first === undefined || forces.length < 2) return 0;
  return Math.max(0, Math.min(1, (Math.max(...forces.slice(-2)) - first) / Math.max(dullGf - first, 1)));
}

/** As large as the room allows, never under 160 px. */
export function countSize(text: string, width: number): string {
  const room = width > 860 ? width - 600 : width - 40;
  return `${Math.max(160, Math.min(width > 860 ? 340 : 210, room / (0.66 * text.length)))}px`;
}
