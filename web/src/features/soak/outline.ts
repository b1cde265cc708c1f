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

/**
 * The outline with a new corner: on the side that was pressed, else after the last one, so that
 * corners pressed in order around the blade make its outline.
 */
export function inserted(corners: readonly Corner[], corner: Corner, reach: number): Corner[] {
  if (corners.length < 3) return [...corners, corner];
  const place = corners.findIndex((from, i) => {
    const to = corners[(i + 1) % corners.length] ?? from;
    return isOnSide(from, to, corner, reach);
  });
  if (place < 0) return [...corners, corner];
  return [...corners.slice(0, place + 1), corner, ...corners.slice(place + 1)];
}

/** Whether a press is on a side, and not at one of its ends. */
function isOnSide(from: Corner, to: Corner, point: Corner, reach: number): boolean {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = dx * dx + dy * dy || 1;
  const part = ((point[0] - from[0]) * dx + (point[1] - from[1]) * dy) / long;
  const away = Math.hypot(point[0] - from[0] - part * dx, point[1] - from[1] - part * dy);
  return part > END_SHARE && part < 1 - END_SHARE && away < reach;
}

const END_SHARE = 0.08;
