/** Corners of an outline drawn on a picture, in its pixels. */
export type Corner = [number, number];

export const clamp = (value: number, most: number) => Math.min(Math.max(value, 0), most - 1);

/** The corner within reach of a press, if any. */
export function nearest(corners: readonly Corner[], to: Corner, reach: number): number | null {
  let best: number | null = null;
  let least = reach * 1.6;
  corners.forEach(([x, y], i) => {
    const away = Math.hypot(x - to[0], y - to[1]);
    if (away < least) {
      least = away;
      best = i;
    }
  });
  return best;
}

/** The outline with a new corner between the two whose side it lies nearest to. */
export function inserted(corners: readonly Corner[], corner: Corner): Corner[] {
  if (corners.length < 3) return [...corners, corner];
  let place = corners.length;
  let least = Number.POSITIVE_INFINITY;
  corners.forEach((from, i) => {
    const to = corners[(i + 1) % corners.length] ?? from;
    const away = fromSide(from, to, corner);
    if (away < least) {
      least = away;
      place = i + 1;
    }
  });
  return [...corners.slice(0, place), corner, ...corners.slice(place)];
}

function fromSide(from: Corner, to: Corner, point: Corner): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = dx * dx + dy * dy || 1;
  const part = ((point[0] - from[0]) * dx + (point[1] - from[1]) * dy) / long;
  const on = Math.min(Math.max(part, 0), 1);
  return Math.hypot(point[0] - from[0] - on * dx, point[1] - from[1] - on * dy);
}
