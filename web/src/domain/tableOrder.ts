const NUMBER = /^[≥≤<>~+]?\s*(-?\d[\d ]*(?:[.,]\d+)?)/;
const BY_WORDS = new Intl.Collator("en", { numeric: true, sensitivity: "base" });

/** The number that a cell begins with; null for none. */
export function numberIn(cell: string): number | null {
  const found = NUMBER.exec(cell)?.[1];
  return found ? Number(found.replaceAll(" ", "").replace(",", ".")) : null;
}

/**
 * The places of cells in order: by their numbers where most begin with one, else by their words;
 * empty ones and, among numbers, words stand last either way.
 */
export function ordered(cells: readonly string[], isDown: boolean): number[] {
  const filled = cells.filter(Boolean);
  const numbers = filled.filter((cell) => numberIn(cell) !== null).length;
  const isNumeric = numbers * 2 >= filled.length && numbers > 0;
  const isLast = (cell: string) => (isNumeric ? numberIn(cell) === null : cell === "");
  const compare = (a: string, b: string) =>
    isNumeric ? (numberIn(a) ?? 0) - (numberIn(b) ?? 0) : BY_WORDS.compare(a, b);
  return cells
    .map((cell, place) => ({ cell, place }))
    .sort((a, b) => {
      const last = Number(isLast(a.cell)) - Number(isLast(b.cell));
      return last || (isDown ? -1 : 1) * compare(a.cell, b.cell);
    })
    .map(({ place }) => place);
}
