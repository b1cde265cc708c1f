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
    const force = state.asked === "force";
    const next = shown.readingsWanted > 1 ? ", the next at" : " at";
    const place = shown.placeMm === null ? "" : `${next} ${counted(shown.placeMm)} mm`;
    if (shown.confirming) return force ? "Read once more to confirm" : "Look once more to confirm";
    if (!force) {
      const judged = isJudged(state.asked) && state.asked !== "inspect";
      const times =
        judged && shown.readingsWanted > 1
          ? `, ${plural(shown.readingsWanted, "try", "tries")}`
          : "";
      return `Check now: ${ASKED[state.asked] ?? state.asked_words}${times}${place}`;
    }
    if (shown.count === 0 && shown.readings.length === 0)
      return (
        `Wipe the ${run.after_strop_of ? "stropped" : "fresh"} edge, take ` +
        `${plural(shown.readingsWanted, "reading")}${place}`
      );
    return `Check now: wipe, ${plural(shown.readingsWanted, "reading")}${place}`;
  }
  if (shown.planning || shown.nextAt === null)
    return shown.planning ? "Working out the next check" : "Cut on";
  const more = shown.nextAt - shown.count;
  const wanted = state.plan?.next_count === shown.nextAt ? state.plan.readings : run.card.readings;
  const readings = wanted > 1 && state.asked === "force" ? `, ${wanted} readings` : "";
  return more > 0 ? `Check after ${counted(more)} more${readings}` : "Cut on";
}

const ASKED: Record<string, string> = {
  paper: "wipe, does it slice the held paper",
  hair_sample: "wipe, does it cut the hair sample",
  shave: "wipe, does it shave (off the skin: paper or a hair sample does it, too)",
  inspect: "wipe, look along the apex under the lamp",
  effort: "how hard was it, 0 to 10",
  rank: "its rank by effort, 1 for the least",
  depth: "the depth of this cycle",
};

export const isJudged = (kind: string) =>
  ["paper", "hair_sample", "shave", "inspect"].includes(kind);

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

/**
 * How far the edge is worn, for drawing: of its dose, of its stages, or its last readings towards
 * the last limit.
 */
export function wornShare(run: RunData, shown: Shown): number {
  const dose = run.method.ends.find((e) => e.kind === "dose")?.amount;
  if (typeof dose === "number") return Math.min(1, shown.count / dose);
  const limit = run.method.stages.flatMap((s) => s.limit_gf ?? []).at(-1);
  if (limit === undefined)
    return Object.keys(run.state.stages).length / Math.max(run.method.stages.length, 1);
  const forces = shown.readings.filter((r) => !r.struck).map((r) => r.forceGf);
  const [first] = forces;
  if (first === undefined || forces.length < 2) return 0;
  return Math.max(
    0,
    Math.min(1, (Math.max(...forces.slice(-2)) - first) / Math.max(limit - first, 1)),
  );
}

/** As large as the room allows, never under 160 px. */
export function countSize(text: string, width: number): string {
  const room = width > 860 ? width - 600 : width - 40;
  return `${Math.max(160, Math.min(width > 860 ? 340 : 210, room / (0.66 * text.length)))}px`;
}

/** What the lamp showed in this run, at its places on the edge. */
export const seenHere = (run: RunData) =>
  run.state.checks.flatMap((c) =>
    c.kind === "inspect" && c.position_mm !== null && c.seen && c.seen !== "clean" && !c.struck
      ? [{ atMm: c.position_mm, kind: c.seen }]
      : [],
  );
