/** A life in cuts (lengths in metres) on a usual lot; empty where media do not agree. */
export function cutsOf(cuts: number | null, unit: string): string {
  if (cuts === null || !unit) return "";
  const [value, shown] = unit === "mm" ? [cuts / 1000, "m"] : [cuts, unit];
  const digits = value >= 100 ? 0 : value >= 10 ? 0 : 1;
  return `About ${value.toFixed(digits)} ${shown} on a usual lot.`;
}
