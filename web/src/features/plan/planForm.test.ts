import { describe, expect, it } from "vitest";
import { readTyped } from "../../domain/typed";
import type { Values } from "../../ui/useForm";
import { PLAN_KINDS, type PlanBody, planSent, planTyped } from "./planForm";

const plan: PlanBody = {
  edges_per_blade: 3,
  expected_life: null,
  wanted_percent: 20,
  rope_left_m: 60,
  line_left_m: null,
  order_kind: "abba",
  seed: 4,
  balance_zones: true,
  starts_on: "2026-05-04",
  hours_a_day: 4,
  medium_lot_id: null,
  check_lot_id: "lot-00001",
  prediction: "A before B",
  own_pace: true,
  pace: {
    cut_s: 31,
    reading_s: 25,
    sharpening_min: 20,
    advance_mm: 25,
    offcut_m: 0.5,
    line_mm: 120,
    cuts_a_day: 250,
  },
};

type Kinds = typeof PLAN_KINDS;
function read(typed: Record<keyof Kinds, string>): Values<Kinds> {
  const names = Object.keys(PLAN_KINDS) as (keyof Kinds)[];
  return Object.fromEntries(
    names.map((name) => {
      const found = readTyped(PLAN_KINDS[name], typed[name]);
      return [name, "value" in found ? found.value : undefined];
    }),
  ) as Values<Kinds>;
}

describe("a plan", () => {
  it("goes out as it came in where nothing was touched", () => {
    expect(planSent(read(planTyped(plan)), plan)).toEqual(plan);
  });

  it("keeps of the pace what the form does not show, and makes whole numbers whole", () => {
    const typed = { ...planTyped(plan), edges_per_blade: "2.4", cuts_a_day: "180,6" };
    const sent = planSent(read(typed), plan);
    expect(sent.edges_per_blade).toBe(2);
    expect(sent.pace).toMatchObject({ cut_s: 31, offcut_m: 0.5, cuts_a_day: 181 });
  });
});
