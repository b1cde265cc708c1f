/** Formatting for show; storage keeps full precision. */

import { dayOf } from "./days";

/** Keep codes and numbers with their units in one piece when a line breaks. */
export function unbroken(text: string): string {
  return text.replace(/(\w)-(\w)/g, "$1\u2011$2").replace(/(\d) (mm|gf|%|HRC|cuts)/g, "$1\u00a0$2");
}

/** A number with the digits its interval supports, as the core words it. */
export function toUncertainty(value: number, low: number, high: number): string {
  const width = Math.max(high - low, 1e-12);
  return value.toFixed(width >= 2 || value >= 100 ? 0 : width >= 0.15 ? 1 : 2);
}

export function counted(value: number): string {
  return Number.isInteger(value) ? String(value) : value.toFixed(1);
}

export function gf(value: number): string {
  return `${Math.round(value)}`;
}

/** A day and time as people say it, in the tester's own zone. */
export function day(utc: string, now: Date = new Date()): string {
  const then = new Date(utc);
  const midnight = (d: Date) => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((midnight(now) - midnight(then)) / 86_400_000);
  if (days === 0) return "today";
  if (days === 1) return "yesterday";
  if (days > 1 && days < 14) return `${days} days ago`;
  return dayOf(then);
}

export function clock(utc: string): string {
  return new Date(utc).toLocaleTimeString("en-GB", {
    hour: "2-digit",
    minute: "2-digit",
    second: "2-digit",
  });
}

export function plural(count: number, one: string, many = `${one}s`): string {
  return `${count} ${count === 1 ? one : many}`;
}

/**
 * A typed number; a decimal comma is read too. Null where it is empty, undefined where it is no
 * number.
 */
export function typedNumber(text: string): number | null | undefined {
  const clean = text.trim().replace(",", ".");
  if (clean === "") return null;
  const value = Number(clean);
  return Number.isFinite(value) ? value : undefined;
}

/** Time with the offset of this machine, as the bench log keeps it. */
export function localTime(date: Date): string {
  const offset = -date.getTimezoneOffset();
  const sign = offset < 0 ? "-" : "+";
  const part = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, "0");
  const shifted = new Date(date.getTime() + offset * 60_000).toISOString().slice(0, 23);
  return `${shifted}${sign}${part(offset / 60)}:${part(offset % 60)}`;
}

/** A name cut to so many letters, where it is longer. */
export const shortened = (name: string, letters: number): string =>
  name.length <= Math.max(letters, 1) ? name : `${name.slice(0, Math.max(letters - 1, 1))}…`;

/** A text that begins with a capital letter. */
export const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

const QUOTED = 40;

/** What was typed, in quotation marks; of a long text its beginning. */
export const quoted = (text = "") =>
  text.length > QUOTED ? `“${text.slice(0, QUOTED)}…”` : `“${text}”`;
