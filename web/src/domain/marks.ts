/** A blade's mark: shape, line pattern and colour, legible without colour and in print. */
export interface BladeMark {
  readonly letter: string;
  readonly colour: string;
  readonly dash: string;
  /** Outline around the origin for a mark of radius 1. */
  readonly outline: ReadonlyArray<readonly [number, number]> | "circle";
}

const polygon = (sides: number, turn: number, size = 1): Array<readonly [number, number]> =>
  Array.from({ length: sides }, (_, i) => {
    const angle = ((turn + (i * 360) / sides) * Math.PI) / 180;
    return [size * Math.cos(angle), size * Math.sin(angle)] as const;
  });

const bar = 0.42;
const cross: Array<readonly [number, number]> = [
  [-bar, -1],
  [bar, -1],
  [bar, -bar],
  [1, -bar],
  [1, bar],
  [bar, bar],
  [bar, 1],
  [-bar, 1],
  [-bar, bar],
  [-1, bar],
  [-1, -bar],
  [-bar, -bar],
];

const OUTLINES: BladeMark["outline"][] = [
  "circle",
  polygon(3, -90, 1.2),
  polygon(4, 45, 1.18),
  polygon(4, 0, 1.22),
  polygon(3, 90, 1.2),
  polygon(6, 0, 1.1),
  cross,
  polygon(5, -90, 1.15),
];
const DASHES = ["", "9 4", "2 3.5", "12 4 2 4", "6 3", "14 3 3 3 3 3", "1 5", "4 7"];

/**
 * The look of a blade's mark, its own everywhere. Sixty-four differ; each run of eight keeps
 * shape, line and colour all apart, so that neighbours on the shelf are never taken for each
 * other.
 */
export function markOf(mark: number): BladeMark {
  const shape = mark % OUTLINES.length;
  const round = Math.floor(mark / OUTLINES.length);
  return {
    letter: String.fromCharCode(65 + (mark % 26)),
    colour: `var(--mark-${(shape + round) % 8})`,
    dash: DASHES[(shape + 3 * round) % DASHES.length] ?? "",
    outline: OUTLINES[shape] ?? "circle",
  };
}

/** SVG path of a mark around (x, y). */
export function markPath(mark: BladeMark, x: number, y: number, radius: number): string {
  if (mark.outline === "circle") {
    return (
      `M${x - radius},${y}a${radius},${radius} 0 1 0 ${2 * radius},0a${radius},${radius} 0 1 0 ` +
      `${-2 * radius},0Z`
    );
  }
  const points = mark.outline.map(
    ([dx, dy]) => `${(x + dx * radius).toFixed(2)},${(y + dy * radius).toFixed(2)}`,
  );
  return `M${points.join("L")}Z`;
}
