import { scaleLog } from "d3-scale";
import type { Look } from "./soak";

const WIDTH = 190;
const at = scaleLog([0.01, 100], [0, WIDTH]).clamp(true);

/** An area without a picture: from none at the left to all at the right, ten times a quarter. */
export function AreaBar({ look }: { look: Look }) {
  const { rust_low: low, rust_high: high, rust_percent: best } = look;
  return (
    <svg width={WIDTH} height={20} viewBox={`0 0 ${WIDTH} 20`} aria-hidden="true">
      <rect x={0} y={5} width={WIDTH} height={10} fill="var(--steel)" />
      {[0.1, 1, 10].map((tick) => (
        <line key={tick} x1={at(tick)} x2={at(tick)} y1={5} y2={15} stroke="var(--steel-2)" />
      ))}
      {low !== null && high !== null ? (
        <rect
          x={at(low)}
          y={3}
          width={Math.max(3, at(high) - at(low))}
          height={14}
          fill="var(--rust)"
          opacity={best === null ? 0.55 : 0.45}
        />
      ) : null}
      {best !== null && best > 0 ? (
        <rect x={at(best) - 1.5} y={1} width={3} height={18} fill="var(--rust)" />
      ) : null}
    </svg>
  );
}
