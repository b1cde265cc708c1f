import { scaleLinear, scaleLog } from "d3-scale";
import type { Schemas } from "../../api/client";

type Chosen = Schemas["ChosenOut"];
type Axis = Schemas["AxisOut"];

const SIDE = 6;

/** Where the figures of an axis lie in its column, the better ones on the right. */
export function laneScale(axis: Axis, candidates: readonly Chosen[], width: number) {
  const told = candidates.flatMap((each) => each.figures.filter((f) => f.axis === axis.key));
  const ends = told.flatMap((f) => [f.low, f.high, f.value]);
  const room: [number, number] = axis.more_is_better ? [SIDE, width - SIDE] : [width - SIDE, SIDE];
  if (axis.key === "rust") {
    return scaleLinear([0, Math.max(1, ...ends)], room);
  }
  const sound = ends.filter((end) => end > 0);
  const low = Math.min(...sound, 1e9);
  const high = Math.max(...sound, 1e-9);
  return low < high ? scaleLog([low, high], room) : scaleLinear([0, 2 * high], room);
}
