import { scaleLinear } from "d3-scale";
import { markOf, markPath } from "../domain/marks";

export interface YieldPoint {
  readonly blade_id: string;
  readonly code: string;
  readonly mark: number;
  readonly x: number;
  readonly y: number;
  readonly low: number | null;
  readonly high: number | null;
  readonly counts: boolean;
  readonly x_from: string;
}

type Scale = (value: number) => number;

const LEFT = 56;
const RIGHT = 70;
const TOP = 18;
const HEIGHT = 400;
const FLOOR = HEIGHT - 46;

/** Blades by what they are made of and how they did: marks with whiskers; claimed ones hollow. */
export function YieldChart({
  points,
  xLabel,
  yLabel,
  width,
}: {
  points: readonly YieldPoint[];
  xLabel: string;
  yLabel: string;
  width: number;
}) {
  const xs = points.map((p) => p.x);
  const top = Math.max(1, ...points.map((p) => p.high ?? p.y));
  const room = Math.max(Math.max(...xs) - Math.min(...xs), 0.02) * 0.12;
  const x = scaleLinear(
    [Math.max(Math.min(...xs) - room, 0), Math.max(...xs) + room],
    [LEFT, width - RIGHT],
  );
  const y = scaleLinear([0, top * 1.05], [FLOOR, TOP]);
  if (points.length === 0) return <p className="mt-4 text-ink-2">No blade has both.</p>;
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={`${yLabel} against ${xLabel}: ${points.map(said).join("; ")}`}
      className="mt-3 block max-w-full"
    >
      <g fontSize={12} fill="var(--ink-2)" stroke="none">
        {y.ticks(5).map((tick) => (
          <g key={tick}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(tick)} y2={y(tick)} stroke="var(--line)" />
            <text x={LEFT - 8} y={y(tick) + 4} textAnchor="end">
              {tick}
            </text>
          </g>
        ))}
        {x.ticks(Math.max(3, Math.floor(width / 140))).map((tick) => (
          <g key={tick}>
            <line x1={x(tick)} x2={x(tick)} y1={FLOOR} y2={FLOOR + 5} stroke="var(--ink-2)" />
            <text x={x(tick)} y={FLOOR + 19} textAnchor="middle">
              {Number(tick.toPrecision(6))}
            </text>
          </g>
        ))}
        <text x={LEFT} y={TOP - 6} fontSize={13}>
          {yLabel}
        </text>
        <text x={width - RIGHT} y={HEIGHT - 8} textAnchor="end" fontSize={13}>
          {xLabel}
        </text>
      </g>
      <line x1={LEFT} x2={width - RIGHT} y1={FLOOR} y2={FLOOR} stroke="var(--ink)" />
      {points.map((p) => (
        <Point
          key={`${p.blade_id}${p.code}${p.y}`}
          point={p}
          x={x}
          y={y}
          toLeft={isCrowded(p, points, x, y)}
        />
      ))}
    </svg>
  );
}

/** Whether another point just above takes the room for a label on the right. */
function isCrowded(p: YieldPoint, all: readonly YieldPoint[], x: Scale, y: Scale): boolean {
  const above = all.filter(
    (o) =>
      o !== p && Math.abs(x(o.x) - x(p.x)) < 70 && y(p.y) - y(o.y) >= 0 && y(p.y) - y(o.y) < 16,
  );
  return above.length % 2 === 1;
}

function Point({
  point: p,
  x,
  y,
  toLeft,
}: {
  point: YieldPoint;
  x: Scale;
  y: Scale;
  toLeft: boolean;
}) {
  const look = markOf(p.mark);
  return (
    <g stroke={look.colour} strokeWidth={1.6}>
      {p.low !== null && p.high !== null ? (
        <line
          x1={x(p.x)}
          x2={x(p.x)}
          y1={y(p.low)}
          y2={y(p.high)}
          strokeDasharray={p.counts ? undefined : "3 3"}
        />
      ) : null}
      <path d={markPath(look, x(p.x), y(p.y), 7)} fill={p.counts ? look.colour : "var(--paper)"} />
      <text
        x={x(p.x) + (toLeft ? -12 : 12)}
        y={y(p.y) - 9}
        fontSize={13}
        textAnchor={toLeft ? "end" : "start"}
        fill="var(--ink)"
        stroke="none"
      >
        {p.code}
      </text>
    </g>
  );
}

function said(p: YieldPoint): string {
  const span =
    p.low !== null && p.high !== null ? ` (${p.low.toFixed(1)} to ${p.high.toFixed(1)})` : "";
  return `${p.code}: ${p.x.toPrecision(3)} ${p.x_from}, ${p.y.toFixed(1)}${span}`;
}
