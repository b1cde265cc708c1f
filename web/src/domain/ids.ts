/** A random UUID that also works where the page is not a secure context. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  const ends = [0, 8, 12, 16, 20, 32];
  return ends
    .slice(1)
    .map((end, i) => hex.slice(ends[i], end))
    .join("-");
}
