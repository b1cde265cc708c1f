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

const isSeenNow = (soak: Soak, whose: Whose) =>
  soak.looks.some(
    (look) =>
      !look.struck &&
      look.coupon_id === whose.coupon &&
      look.side === whose.side &&
      look.stage === whose.stage &&
      look.is_of_now,
  );

const turns = (soak: Soak, stage: Look["stage"]): Whose[] =>
  soak.coupons.flatMap((c) => sides(soak, c.id).map((side) => ({ coupon: c.id, side, stage })));

/** The first side that has not been looked at now, stage by stage. */
export function firstOpen(soak: Soak): Whose {
  const all = soak.how.stages.flatMap((stage) => turns(soak, stage));
  const stage = soak.how.stages[0] ?? "as_found";
  return (
    all.find((whose) => !isSeenNow(soak, whose)) ??
    all[0] ?? { coupon: soak.coupons[0]?.id ?? "", side: "both", stage }
  );
}

/** The side after this one, of the same stage; null after the last. */
export function following(soak: Soak, whose: Whose): (Whose & { says: string }) | null {
  const all = turns(soak, whose.stage);
  const here = all.findIndex((t) => t.coupon === whose.coupon && t.side === whose.side);
  const next = all.slice(here + 1).find((turn) => !isSeenNow(soak, turn));
  if (!next) return null;
  const name = soak.coupons.find((c) => c.id === next.coupon)?.called ?? "";
  return { ...next, says: next.side === "both" ? name : `${name} ${next.side}` };
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
