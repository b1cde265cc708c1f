import type { Schemas } from "../../api/client";
import { readMoment } from "../../domain/days";

export type Soak = Schemas["SoakOut"];
export type Look = Schemas["LookOut"];
export type Coupon = Schemas["CouponOut"];
export type Stage = Look["stage"];
export type Side = Look["side"];
export type ActKind = Schemas["ActBody"]["kind"];

/** Hours as people say them: minutes below one, days from three on. */
export function hoursSaid(hours: number): string {
  const size = Math.abs(hours);
  if (size < 1) return `${Math.round(size * 60)} min`;
  if (size < 10) {
    const whole = Math.floor(size);
    return `${whole} h ${Math.round((size - whole) * 60)} min`;
  }
  if (size < 72) return `${size.toFixed(0)} h`;
  return `${(size / 24).toFixed(1)} days`;
}

/** A moment as it is sent: the one that was typed, or now where nothing was. */
export function moment(typed: string): Schemas["AtBody"] {
  const then = readMoment(typed) ?? new Date();
  return { at_utc: then.toISOString(), offset_minutes: -then.getTimezoneOffset() };
}
