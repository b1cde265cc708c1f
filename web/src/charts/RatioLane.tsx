import { type ScaleLogarithmic, scaleLog } from "d3-scale";
import { markOf } from "../domain/marks";

export type RatioScale = ScaleLogarithmic<number, number>;

export interface RatioSpan {
  readonly ratio: number | null;
  readonly low: number | null;
  readonly high: number | null;
}

const TICKS = [0.1, 0.2, 0.3, 0.5, 0.7, 1, 1.4, 2, 3, 5, 10];
const SIDE = 16;

/** One scale for all rows: lives as multiples of the reference's, each doubling as wide. */
export function ratioScale(spans: readonly RatioSpan[], width: number): RatioScale {
  const ends = spans
    .flatMap((s) => [s.ratio, s.low, s.high])
    .filter((v): v is number => v !== null && v > 0.02 && v < 50);
  const low = Math.min(0.8, ...ends) / 1.08;
  const high = Math.max(1.25, ...ends) * 1.08;
  return scaleLog([low, high], [SIDE, width - SIDE]);
}

/** The figures above the rows. */
export function RatioAxis({ scale, width }: { scale: RatioScale; width: number }) {
  const [low = 0, high = 1] = scale.domain();
  return (
    <svg width={width} height={22} aria-hidden="true" className="block">
      {TICKS.filter((t) => t >= low && t <= high).map((tick) => (
        <text
          key={tick}
          x={scale(tick)}
          y={15}
          fontSize={13}
          textAnchor="middle"
          fontWeight={tick === 1 ? 700 : 400}
          fill="var(--ink-2)"
        >
          {tick}
        </text>
      ))}
    </svg>
  );
}

/** A life beside the reference: its interval, an arrow where an end is open. */
export function RatioLane({
  span,
  scale,
  mark,
  width,
  height,
  faint = false,
}: {
  span: RatioSpan;
  scale: RatioScale;
  mark: number;
  width: number;
  height: number;
  faint?: boolean;
}) {
  const look = markOf(mark);
  const [low = 0, high = 1] = scale.domain();
  const at = (value: number) => scale(Math.min(Math.max(value, low), high));
  const middle = height / 2;
  const ticks = TICKS.filter((t) => t >= low && t <= high);
  return (
    <svg width={width} height={height} aria-hidden="true" className="block">
      {ticks.map((tick) => (
        <line
          key={tick}
          x1={at(tick)}
          x2={at(tick)}
          y1={0}
          y2={height}
          stroke={tick === 1 ? "var(--ink-2)" : "var(--line)"}
          strokeWidth={tick === 1 ? 1.5 : 1}
        />
      ))}
      <g opacity={faint ? 0.45 : 1}>
        {span.low !== null && span.high !== null && span.low < span.high ? (
          <rect
            x={at(span.low)}
            y={middle - 6}
            width={Math.max(at(span.high) - at(span.low), 2)}
            height={12}
            fill={look.colour}
            opacity={0.3}
          />
        ) : null}
        {span.ratio !== null ? (
          <line
            x1={at(span.ratio)}
            x2={at(span.ratio)}
            y1={middle - 10}
            y2={middle + 10}
            stroke={look.colour}
            strokeWidth={3}
          />
        ) : (
          <OpenArrow span={span} at={at} middle={middle} colour={look.colour} />
        )}
      </g>
    </svg>
  );
}

function OpenArrow({
  span,
  at,
  middle,
  colour,
}: {
  span: RatioSpan;
  at: (value: number) => number;
  middle: number;
  colour: string;
}) {
  const known = span.low ?? span.high;
  if (known === null) return null;
  const turn = span.low !== null ? 1 : -1;
  const from = at(known);
  const tip = from + 34 * turn;
  return (
    <g stroke={colour} fill="none" strokeWidth={2.4}>
      <line x1={from} x2={from} y1={middle - 9} y2={middle + 9} strokeWidth={3} />
      <path
        d={`M${from},${middle}H${tip}M${tip - 7 * turn},${middle - 6}L${tip},${middle}L${tip - 7 * turn},${middle + 6}`}
      />
    </g>
  );
}
