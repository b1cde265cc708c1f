import { describe, expect, it } from "vitest";
import { readTyped } from "../../domain/typed";
import type { Coupon } from "./soak";
import {
  COUPON_KINDS,
  couponsTyped,
  halves,
  INTERVENTION_KINDS,
  interventionsTyped,
  type Method,
  methodTyped,
  nextCoupon,
  PHASE_KINDS,
  phasesTyped,
  SOAK_KINDS,
  soakSent,
  soakTyped,
} from "./soakForm";

const METHOD = {
  name: "Fresh water, then brine",
  medium: "sprayed",
  hours: 144,
  look_h: [72, 144],
  stages: ["wiped"],
  phases: [
    { medium: "fresh water", until_h: 72 },
    { medium: "brine", until_h: 144, salt_percent: 3.5, side: "right", scale: "rust" },
  ],
} as Method;

describe("phases of a soak in its form", () => {
  it("show what a phase leaves open as what it means", () => {
    const [fresh, brine] = phasesTyped(METHOD);
    expect(fresh).toMatchObject({ until_h: "72", side: "both", scale: "rust", salt_percent: "" });
    expect(brine).toMatchObject({ salt_percent: "3.5", side: "right" });
  });

  it("need the hour they end at, and take a decimal comma", () => {
    expect(readTyped(PHASE_KINDS.until_h, "")).toHaveProperty("wrong");
    expect(readTyped(PHASE_KINDS.salt_percent, "3,5")).toEqual({ value: 3.5 });
  });
});

/** What is typed in a row or a form, as it would be read. */
const read = <K extends object>(kinds: K, typed: object) =>
  Object.fromEntries(
    Object.entries(typed).map(([name, text]) => {
      const found =
        name in kinds ? readTyped(kinds[name as keyof K] as "text", text) : { value: text };
      if (!("value" in found)) throw new Error(`${name}: ${text}`);
      return [name, found.value];
    }),
  );

const COUPON = {
  id: "coupon-1",
  name: "",
  called: "A",
  mark: 3,
  blade_id: "blade-1",
  side: "both",
  role: "baseline",
  steel: "1.4034",
  flat_finish: "satin",
  degreased_with: "alcohol",
  mass_before_g: 12.25,
  is_same_piece: true,
} as unknown as Coupon;

describe("coupons of a soak in its form", () => {
  it("show what is known, and no steel of their own where a blade has one", () => {
    const [typed] = couponsTyped([COUPON]);
    expect(typed).toMatchObject({
      mass_before_g: "12.25",
      is_same_piece: "yes",
      steel: "",
      area_cm2: "",
    });
    expect(typed).not.toHaveProperty("called");
  });

  it("are finished and degreased like the one before, of the same steel unless they are a blade", () => {
    const before = { ...couponsTyped([COUPON])[0], steel: "1.4034" } as ReturnType<
      typeof couponsTyped
    >[0];
    expect(nextCoupon([before], {})).toMatchObject({
      flat_finish: "satin",
      steel: "1.4034",
      role: "",
    });
    expect(nextCoupon([before], { blade_id: "blade-2" }).steel).toBe("");
    expect(nextCoupon([], {})).toMatchObject({ flat_finish: "", degreased_with: "" });
  });

  it("come apart into two sides, each with an id of its own", () => {
    const [typed] = couponsTyped([COUPON]);
    const [left, right] = halves(typed as NonNullable<typeof typed>);
    expect([left?.side, right?.side]).toEqual(["left", "right"]);
    expect(new Set([left?.id, right?.id, COUPON.id]).size).toBe(3);
  });
});

describe("a soak on its way out and in again", () => {
  it("sends what its fields show, and the method stays what it was", () => {
    const method = {
      ...METHOD,
      tending: [{ kind: "sprayed", every_h: 12, from_h: 0, until_h: null }],
      steps: ["Rinse.", "Dry."],
    } as Method;
    const typed = soakTyped("soak-1", undefined, method);
    const sent = soakSent(
      read(SOAK_KINDS, { ...typed, name: "Brine", question: "Which?" }) as never,
      method,
      interventionsTyped(method).map((row) => read(INTERVENTION_KINDS, row)) as never,
      phasesTyped(method).map((row) => read(PHASE_KINDS, row)) as never,
      couponsTyped([COUPON]).map((row) => read(COUPON_KINDS, row)) as never,
    );
    expect(sent).toMatchObject({ name: "Brine", factor: "steel" });
    expect(sent.method).toMatchObject({
      hours: 144,
      look_h: [72, 144],
      stages: ["wiped"],
      needed_grade: 6,
      scale: "rust",
    });
    expect(sent.method.tending).toEqual([
      { kind: "sprayed", every_h: 12, from_h: 0, until_h: null },
    ]);
    expect(sent.method.phases?.[1]).toMatchObject({ medium: "brine", until_h: 144, side: "right" });
    expect(sent.method.steps).toEqual(["Rinse.", "Dry."]);
    expect(sent.coupons?.[0]).toMatchObject({ mass_before_g: 12.25, is_same_piece: true });
  });

  it("shows a method's hours of inspection side by side", () => {
    expect(methodTyped(METHOD)).toMatchObject({
      look_h: "72 144",
      method_key: "",
      salt_percent: "",
    });
  });
});
