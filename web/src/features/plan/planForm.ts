import type { Schemas } from "../../api/client";
import { shownNumber, yesNo } from "../../domain/typed";
import type { Typed, useForm, Values } from "../../ui/useForm";

export type PlanBody = Schemas["PlanBody"];

/** How the fields of a plan are read. */
export const PLAN_KINDS = {
  edges_per_blade: { needed: "say how many edges" },
  expected_life: "number",
  wanted_percent: { needed: "say which difference" },
  rope_left_m: "number",
  line_left_m: "number",
  advance_mm: { needed: "say how much rope" },
  line_mm: { needed: "say how much line" },
  cuts_a_day: { needed: "say how many cuts" },
  sharpening_min: { needed: "say how many minutes" },
  medium_lot_id: "text",
  check_lot_id: "text",
  starts_on: "day",
  hours_a_day: { needed: "say how many hours" },
  balance_zones: "yes",
  order_kind: { word: "orders" },
  seed: { needed: "give a number" },
  prediction: "text",
} as const;

export type PlanForm = ReturnType<typeof useForm<typeof PLAN_KINDS>>;

/** A plan as it stands in the form. */
export function planTyped(plan: PlanBody): Typed<typeof PLAN_KINDS> {
  const pace = plan.pace ?? {};
  return {
    edges_per_blade: shownNumber(plan.edges_per_blade),
    expected_life: shownNumber(plan.expected_life),
    wanted_percent: shownNumber(plan.wanted_percent),
    rope_left_m: shownNumber(plan.rope_left_m),
    line_left_m: shownNumber(plan.line_left_m),
    advance_mm: shownNumber(pace.advance_mm),
    line_mm: shownNumber(pace.line_mm),
    cuts_a_day: shownNumber(pace.cuts_a_day),
    sharpening_min: shownNumber(pace.sharpening_min),
    medium_lot_id: plan.medium_lot_id ?? "",
    check_lot_id: plan.check_lot_id ?? "",
    starts_on: plan.starts_on ?? "",
    hours_a_day: shownNumber(plan.hours_a_day ?? 4),
    balance_zones: yesNo(plan.balance_zones ?? false),
    order_kind: plan.order_kind ?? "latin_square",
    seed: shownNumber(plan.seed),
    prediction: plan.prediction ?? "",
  };
}

/** The plan as it is sent. */
export function planSent(read: Values<typeof PLAN_KINDS>, kept: PlanBody): PlanBody {
  const { advance_mm, line_mm, cuts_a_day, sharpening_min, ...own } = read;
  return {
    ...kept,
    ...own,
    edges_per_blade: Math.round(own.edges_per_blade),
    seed: Math.round(own.seed),
    medium_lot_id: own.medium_lot_id || null,
    check_lot_id: own.check_lot_id || null,
    pace: {
      ...kept.pace,
      advance_mm,
      line_mm,
      cuts_a_day: Math.round(cuts_a_day),
      sharpening_min,
    },
  };
}
