import type { Schemas } from "../../api/client";
import { newId } from "../../domain/ids";
import { LIMITS } from "../../domain/limits.gen";
import { shownNumber, yesNo } from "../../domain/typed";
import type { Typed, useForm, Values } from "../../ui/useForm";
import type { RowTyped, RowValues, useRows } from "../../ui/useRows";
import type { Coupon, Soak, Stage } from "./soak";

export type Method = Schemas["SoakMethodBody"];

const METHOD_KINDS = {
  method_name: "text",
  immersed_in: "text",
  salt_percent: "number",
  hours: { needed: "a number is needed here" },
  look_h: "numbers",
  needed_grade: { needed: "a number is needed here" },
  scale: { word: "rustScales" },
  stages: "text",
  steps: "text",
} as const;
/** How the fields of a soak and of its method are read. */
export const SOAK_KINDS = {
  id: "text",
  name: "text",
  question: "text",
  factor: { word: "soakFactors" },
  salt: "text",
  water: "text",
  note: "text",
  method_key: "text",
  ...METHOD_KINDS,
} as const;
/** How an intervention that is done again and again is read. */
export const INTERVENTION_KINDS = {
  kind: { word: "tendings" },
  every_h: { needed: "give the hours between" },
  from_h: "number",
  until_h: "number",
} as const;
/** How a phase in a medium of its own is read. */
export const PHASE_KINDS = {
  medium: "text",
  until_h: { needed: "give the hour it ends at" },
  side: { word: "sides" },
  scale: { word: "rustScales" },
  salt_percent: "number",
} as const;
/** How a coupon is read. */
export const COUPON_KINDS = {
  name: "text",
  blade_id: "text",
  side: { word: "sides" },
  role: { word: "couponRoles" },
  arm: "text",
  oil: "text",
  coating: "text",
  flat_finish: "text",
  degreased_with: "text",
  polished_before: "text",
  exposed_before: "text",
  steel: "text",
  is_same_piece: "yes",
  mass_before_g: LIMITS.coupon_g,
  area_cm2: LIMITS.coupon_cm2,
  density_g_cm3: LIMITS.density_g_cm3,
} as const;

export type SoakFields = ReturnType<typeof useForm<typeof SOAK_KINDS>>;
export type InterventionRows = ReturnType<typeof useRows<typeof INTERVENTION_KINDS>>;
export type PhaseRows = ReturnType<typeof useRows<typeof PHASE_KINDS>>;
export type CouponRowsForm = ReturnType<typeof useRows<typeof COUPON_KINDS>>;
export type TypedCoupon = RowTyped<typeof COUPON_KINDS>;

/** A method as its fields show it. */
export function methodTyped(method: Method): Typed<typeof METHOD_KINDS> & { method_key: string } {
  return {
    method_key: method.key ?? "",
    method_name: method.name,
    immersed_in: method.medium,
    salt_percent: shownNumber(method.salt_percent),
    hours: shownNumber(method.hours),
    look_h: method.look_h.join(" "),
    needed_grade: shownNumber(method.needed_grade ?? 6),
    scale: method.scale ?? "rust",
    stages: method.stages.join(" "),
    steps: (method.steps ?? []).join("\n"),
  };
}

/** A soak as its form shows it, under a method. */
export const soakTyped = (
  id: string,
  soak: Soak | undefined,
  method: Method,
): Typed<typeof SOAK_KINDS> => ({
  id,
  name: soak?.name ?? "",
  question: soak?.question ?? "",
  factor: soak?.factor ?? "steel",
  salt: soak?.salt ?? "",
  water: soak?.water ?? "",
  note: soak?.note ?? "",
  ...methodTyped(method),
});

/** The interventions of a method as rows. */
export const interventionsTyped = (method: Method): RowTyped<typeof INTERVENTION_KINDS>[] =>
  (method.tending ?? []).map((each) => ({
    id: newId(),
    kind: each.kind,
    every_h: shownNumber(each.every_h),
    from_h: shownNumber(each.from_h ?? 0),
    until_h: shownNumber(each.until_h),
  }));

/** The phases of a method as rows. */
export const phasesTyped = (method: Method): RowTyped<typeof PHASE_KINDS>[] =>
  (method.phases ?? []).map((each) => ({
    id: newId(),
    medium: each.medium,
    until_h: shownNumber(each.until_h),
    side: each.side ?? "both",
    scale: each.scale ?? "rust",
    salt_percent: shownNumber(each.salt_percent),
  }));

const BLANK: Omit<TypedCoupon, "id"> = {
  name: "",
  blade_id: "",
  side: "both",
  role: "",
  arm: "",
  oil: "",
  coating: "",
  flat_finish: "",
  degreased_with: "",
  polished_before: "",
  exposed_before: "",
  steel: "",
  is_same_piece: "",
  mass_before_g: "",
  area_cm2: "",
  density_g_cm3: "",
};

/** A new coupon; it is finished and degreased like the one before it. */
export function nextCoupon(
  coupons: readonly TypedCoupon[],
  part: Partial<TypedCoupon>,
): Omit<TypedCoupon, "id"> {
  const { flat_finish = "", degreased_with = "", steel = "" } = coupons.at(-1) ?? {};
  const own = part.blade_id ? "" : steel;
  return { ...BLANK, flat_finish, degreased_with, steel: own, ...part };
}

/** The coupons of a soak as rows. */
export const couponsTyped = (coupons: readonly Coupon[]): TypedCoupon[] =>
  coupons.map(({ called: _called, mark: _mark, steel, ...kept }) => ({
    ...BLANK,
    ...kept,
    steel: kept.blade_id ? "" : steel,
    is_same_piece: yesNo(kept.is_same_piece ?? false),
    mass_before_g: shownNumber(kept.mass_before_g),
    area_cm2: shownNumber(kept.area_cm2),
    density_g_cm3: shownNumber(kept.density_g_cm3),
  }));

/** The two sides of a coupon as coupons of their own, to be prepared differently. */
export const halves = (coupon: TypedCoupon): TypedCoupon[] =>
  (["left", "right"] as const).map((side) => ({ ...coupon, side, id: newId() }));

/** The soak as it is sent. */
export function soakSent(
  read: Values<typeof SOAK_KINDS>,
  method: Method,
  interventions: readonly RowValues<typeof INTERVENTION_KINDS>[],
  phases: readonly RowValues<typeof PHASE_KINDS>[],
  coupons: readonly RowValues<typeof COUPON_KINDS>[],
): Schemas["SoakBody"] {
  const { name, question, factor, salt, water, note } = read;
  return {
    name,
    question,
    factor,
    salt,
    water,
    note,
    method: {
      ...method,
      name: read.method_name,
      medium: read.immersed_in,
      scale: read.scale,
      salt_percent: read.salt_percent,
      hours: read.hours,
      look_h: read.look_h,
      needed_grade: Math.round(read.needed_grade),
      stages: read.stages.split(" ").filter(Boolean) as Stage[],
      tending: interventions.map(({ kind, every_h, from_h, until_h }) => ({
        kind,
        every_h,
        from_h: from_h ?? 0,
        until_h,
      })),
      phases: phases.map(({ medium, until_h, side, scale, salt_percent }) => ({
        medium,
        until_h,
        side,
        scale,
        salt_percent,
      })),
      steps: read.steps.split("\n").filter((line) => line.trim()),
    },
    coupons: [...coupons],
  };
}
