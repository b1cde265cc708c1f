import { area, line } from "d3-shape";
import { markOf, markPath } from "../domain/marks";
import { type ChartRun, isFreer, type Limit, PAD, type Place, type Scale } from "./decay";

/** Axes, and the limits as lines with their names. */
export function Axes({
  x,
  y,
  width,
  height,
  limits,
  unit,
  top,
  marks,
}: {
  x: Scale;
  y: Scale;
  width: number;
  height: number;
  limits: readonly Limit[];
  unit: string;
  /** What stands at the upper end of the axis. */
  top: string;
  marks: readonly Place[];
}) {
  const floor = height - PAD.bottom;
  const end = width - PAD.right;
  return (
    <g fontSize="13" fill="var(--ink-2)">
      <text x={4} y={14}>
        {top}
      </text>
      {y.ticks(6).map((gf) => (
        <g key={gf}>
          <line
            x1={PAD.left}
            x2={end}
            y1={y(gf)}
            y2={y(gf)}
            stroke="var(--line)"
            strokeWidth={0.8}
          />
          <text x={PAD.left - 8} y={y(gf) + 4} textAnchor="end">
            {gf}
          </text>
        </g>
      ))}
      {limits.map(({ stage, gf }, i) => {
        const last = i === limits.length - 1;
        const level = y(gf) + (last ? 17 : -6);
        const left = isFreer(marks, level, PAD.left, end);
        return (
          <g key={stage}>
            <line
              x1={PAD.left}
              x2={end}
              y1={y(gf)}
              y2={y(gf)}
              stroke="var(--ink)"
              strokeWidth={last ? 2 : 1.2}
              strokeDasharray={last ? undefined : "7 5"}
            />
            <text
              x={left ? PAD.left + 6 : end - 4}
              y={level}
              textAnchor={left ? "start" : "end"}
              fontWeight={last ? 700 : 400}
              fill={last ? "var(--ink)" : undefined}
            >
              {stage}, {gf} gf
            </text>
          </g>
        );
      })}
      <line x1={PAD.left} x2={end} y1={floor} y2={floor} stroke="var(--ink-2)" />
      {x.ticks(Math.max(3, Math.floor(width / 90))).map((n) => (
        <g key={n}>
          <line x1={x(n)} x2={x(n)} y1={floor} y2={floor + 5} stroke="var(--ink-2)" />
          <text x={x(n)} y={floor + 19} textAnchor="middle">
            {n}
          </text>
        </g>
      ))}
      <text x={end} y={floor + 36} textAnchor="end">
        {unit}
      </text>
    </g>
  );
}

/** The median of a run and its band. */
export function Curve({
  run,
  x,
  y,
  faded,
  bold,
}: {
  run: ChartRun;
  x: Scale;
  y: Scale;
  faded: boolean;
  bold: boolean;
}) {
  if (!run.band) return null;
  const { counts, middle_gf, low_gf, high_gf } = run.band;
  const look = markOf(run.mark);
  const points = counts.map((n, i) => ({
    n,
    middle: middle_gf[i] ?? 0,
    low: low_gf[i] ?? 0,
    high: high_gf[i] ?? 0,
  }));
  const ribbon = area<(typeof points)[number]>(
    (p) => x(p.n),
    (p) => y(p.low),
    (p) => y(p.high),
  );
  const curve = line<(typeof points)[number]>(
    (p) => x(p.n),
    (p) => y(p.middle),
  );
  return (
    <g opacity={faded ? 0.18 : run.leftOut ? 0.5 : 1}>
      <path d={ribbon(points) ?? ""} fill={look.colour} opacity={bold ? 0.24 : 0.12} />
      <path
        d={curve(points) ?? ""}
        fill="none"
        stroke={look.colour}
        strokeWidth={bold ? 3 : 2.1}
        strokeDasharray={look.dash}
      />
    </g>
  );
}

/** Every reading; what is off the axis is named at its end. */
export function Readings({
  run,
  x,
  y,
  faded,
  dullest,
  forceUnit,
  isTurned,
  first,
}: {
  run: ChartRun;
  x: Scale;
  y: Scale;
  faded: boolean;
  dullest: number;
  forceUnit: string;
  isTurned: boolean;
  first: boolean;
}) {
  const look = markOf(run.mark);
  return (
    <g opacity={faded ? 0.2 : run.leftOut ? 0.6 : 1}>
      {run.readings.map((r, i) => {
        const cx = x(r.count);
        const isBeyond = r.force_gf > dullest;
        const cy = y(Math.min(r.force_gf, dullest));
        const said =
          `${run.blade}, edge ${run.edge}: ${Math.round(r.force_gf)} ${forceUnit} at ` +
          `${Number(r.count.toPrecision(4))}${r.struck ? ", excluded" : ""}`;
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: readings have no id, and keep their order
          <g key={`${run.id}-${i}`}>
            <title>{said}</title>
            <path
              d={markPath(look, cx, cy, 4.2)}
              fill={first && !r.struck ? look.colour : "var(--paper)"}
              stroke={look.colour}
              strokeWidth={1.3}
            />
            {isBeyond ? (
              <text x={cx} y={cy - 7} textAnchor="middle" className="text-note" fill={look.colour}>
                {isTurned ? "↑" : "↓"} {Math.round(r.force_gf)}
              </text>
            ) : null}
            {r.struck ? (
              <line
                x1={cx - 6}
                x2={cx + 6}
                y1={cy + 6}
                y2={cy - 6}
                stroke="var(--rust)"
                strokeWidth={1.6}
              />
            ) : null}
          </g>
        );
      })}
    </g>
  );
}

/** The life of a run with its interval. */
export function Whisker({
  run,
  x,
  y,
  right,
  faded,
  row,
}: {
  run: ChartRun;
  x: Scale;
  y: number;
  right: number;
  faded: boolean;
  row: number;
}) {
  const life = run.life;
  if (!life || life.estimate === null || life.low === null || life.high === null) return null;
  const look = markOf(run.mark);
  const at = y + 6 + (row % 4) * 5;
  const end = Math.min(x(life.high), right);
  return (
    <g stroke={look.colour} opacity={faded ? 0.2 : run.leftOut ? 0.5 : 1}>
      <title>{`${run.blade}, edge ${run.edge}: 95 % interval of the life`}</title>
      <line x1={x(life.low)} x2={end} y1={at} y2={at} strokeWidth={2} />
      <line x1={x(life.low)} x2={x(life.low)} y1={at - 2.5} y2={at + 2.5} strokeWidth={1.5} />
      {x(life.high) <= right ? (
        <line x1={end} x2={end} y1={at - 2.5} y2={at + 2.5} strokeWidth={1.5} />
      ) : null}
      {x(life.estimate) <= right ? (
        <circle cx={x(life.estimate)} cy={at} r={2.6} fill={look.colour} stroke="none" />
      ) : null}
    </g>
  );
}
