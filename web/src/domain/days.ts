/** Days and times as they are written everywhere: 2026-11-30, 2026-11-30 14:05. */

const two = (n: number) => String(n).padStart(2, "0");

/** The tester's own day of a moment. */
export const dayOf = (then: Date): string =>
  `${then.getFullYear()}-${two(then.getMonth() + 1)}-${two(then.getDate())}`;

/** A moment in the tester's own zone, to the minute. */
export const momentOf = (then: Date): string =>
  `${dayOf(then)} ${two(then.getHours())}:${two(then.getMinutes())}`;

/** The moment that a text names in the tester's own zone; undefined where it names none. */
export function readMoment(text: string): Date | undefined {
  const parts = /^(\d{4})-(\d{2})-(\d{2})(?:[ T](\d{1,2}):(\d{2}))?$/.exec(text.trim());
  if (!parts) return undefined;
  const [year = 0, month = 0, date = 0, hour = 0, minute = 0] = parts.slice(1).map(Number);
  const then = new Date(year, month - 1, date, hour || 0, minute || 0);
  const isReal = then.getMonth() === month - 1 && then.getDate() === date;
  return isReal && (hour || 0) < 24 && (minute || 0) < 60 ? then : undefined;
}

export const isMoment = (text: string): boolean =>
  /\d:\d/.test(text) && readMoment(text) !== undefined;

export const isDay = (text: string): boolean =>
  /^\s*[\d-]+\s*$/.test(text) && readMoment(text) !== undefined;
