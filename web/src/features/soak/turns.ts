import { labelOf } from "../../domain/words";
import type { Look, Soak } from "./soak";

/** A side in a stage, to be looked at. */
export type Whose = { coupon: string; side: Look["side"]; stage: Look["stage"] };

/** Sides of a coupon that are looked at. */
function sides(soak: Soak, couponId: string): Look["side"][] {
  const coupon = soak.coupons.find((each) => each.id === couponId);
  return coupon?.side && coupon.side !== "both" ? [coupon.side] : ["left", "right"];
}

export const sideOf = (soak: Soak, couponId: string, wanted: Look["side"]) => {
  const own = sides(soak, couponId);
  return own.includes(wanted) ? wanted : (own[0] ?? "both");
};

const isSame = (one: Whose, other: Whose) =>
  one.coupon === other.coupon && one.side === other.side && one.stage === other.stage;

/** What is still to be seen in this round, stage by stage. */
const toSee = (soak: Soak): Whose[] =>
  soak.to_see.map(({ coupon_id, side, stage }) => ({ coupon: coupon_id, side, stage }));

/** The first side that is still to be seen; the first of all where none is. */
export function firstOpen(soak: Soak): Whose {
  const coupon = soak.coupons[0]?.id ?? "";
  const stage = soak.how.stages[0] ?? "as_found";
  return toSee(soak)[0] ?? { coupon, side: sideOf(soak, coupon, "left"), stage };
}

/** What is to be seen after this side, the first that was passed over last; null after the last. */
export function following(soak: Soak, whose: Whose): (Whose & { says: string }) | null {
  const left = toSee(soak);
  const here = left.findIndex((each) => isSame(each, whose));
  const next = [...left.slice(here + 1), ...left.slice(0, Math.max(here, 0))][0];
  if (!next) return null;
  const name = soak.coupons.find((c) => c.id === next.coupon)?.called ?? "";
  const stage = next.stage === whose.stage ? "" : labelOf("inspectionStages", next.stage);
  return {
    ...next,
    says: [name, next.side === "both" ? "" : next.side, stage].filter(Boolean).join(" "),
  };
}

/** The last look at this side before, in a picture: its outline can be carried over. */
export function earlierLook(soak: Soak, whose: Whose & { at: string }, id: string): string {
  const now = new Date(whose.at).getTime();
  const before = soak.looks.filter(
    (look) =>
      look.id !== id &&
      !look.struck &&
      look.coupon_id === whose.coupon &&
      look.side === whose.side &&
      look.picture &&
      (look.how === "photo" || look.how === "brush") &&
      new Date(look.at_utc).getTime() <= now + 60_000,
  );
  return before.sort((a, b) => a.clock_h - b.clock_h).at(-1)?.id ?? "";
}
