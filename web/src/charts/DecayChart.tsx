import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { useId } from "react";
import { markOf, markPath } from "../domain/marks";

export interface ChartRun {
  readonly id: string;
  readonly blade: string;
  readonly mark: number;
  readonly edge: number;
  readonly readings: readonly { count: number; force_gf: number; struck: boolean }[];
  readonly band: {
    readonly counts: readonly number[];
    readonly middle_gf: readonly number[];
    readonly low_gf: readonly number[];
    readonly high_gf: readonly number[];
  } | null;
  readonly life: {
    readonly estimate: number | null;
    readonly low: number | null;
    readonly high: number | null;
  } | null;
  readonly leftOut: boolean;
}

export interface Limit {
  readonly stage: string;
  readonly gf: number;
}

/** The force limits of a method, for the chart. */
export const limitsOf = (method: {
  stages: readonly { name: string; limit_gf?: number | null }[];
}): Limit[] =>
  method.stages.flatMap((s) =>
    typeof s.limit_gf === "number" ? [{ stage: s.name, gf: s.limit_gf }] : [],
  );

interface Props {
  title: string;
  runs: readonly ChartRun[];
  /** Force limits in the order they are met; the last one ends the run. */
  limits: readonly Limit[];
  unit: string;
  width: number;
  height: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** How far beyond the last limit the axis goes; a reading further off is named at its end. */
const FARTHEST = 1.8;
const PAD = { left: 46, right: 58, top: 26, bottom: 44 };

/**
 * Sharpness over the count, sharp on top: every reading, each edge's curve with its band, limits as
 * lines.
 */
export function DecayChart({
  title,
  runs,
  limits,
  unit,
  width,
  height,
  highlighted,
  onHighlight,
}: Props) {
  const titleId = useId();
  const readings = runs.flatMap((r) => r.readings);
  const lastCount = Math.max(4, ...readings.map((r) => r.count));
  const forces = readings.map((r) => r.force_gf);
  const sharpest = Math.min(120, ...forces) * 0.95;
  const end = limits.at(-1)?.gf ?? null;
  const dullest =
    end === null
      ? Math.max(200, ...forces) * 1.08
      : Math.max(end * 1.13, ...forces.map((f) => Math.min(f * 1.03, end * FARTHEST)));
  const x = scaleLinear([0, lastCount * 1.06], [PAD.left, width - PAD.right]);
  const y = scaleLinear([sharpest, dullest], [PAD.top, height - PAD.bottom]);
  const clip = useId();
  const faded = (blade: string) => highlighted !== null && highlighted !== blade;
  const ends = placed(
    lastOfBlades(runs).map((run) => {
      const last = run.band?.middle_gf.at(-1) ?? run.readings.at(-1)?.force_gf ?? end ?? dullest;
      const left = endX(run, x, width);
      return {
        run,
        left,
        right: left + 24 + LETTER * run.blade.length,
        at: y(clamp(last, sharpest, dullest)),
      };
    }),
    height - PAD.bottom - 6,
  );
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-labelledby={titleId}
      className="block max-w-full select-none"
    >
      <title id={titleId}>{title}</title>
      <clipPath id={clip}>
        <rect
          x={PAD.left - 6}
          y={PAD.top - 8}
          width={width - PAD.left - PAD.right + 12}
          height={height - PAD.top - PAD.bottom + 8}
        />
      </clipPath>
      <Axes
        x={x}
        y={y}
        width={width}
        height={height}
        limits={limits}
        unit={unit}
        marks={readings.map((r) => ({ at: x(r.count), level: y(r.force_gf) }))}
      />
      <g clipPath={`url(#${clip})`}>
        {runs.map((run) => (
          <Curve
            key={run.id}
            run={run}
            x={x}
            y={y}
            faded={faded(run.blade)}
            bold={highlighted === run.blade}
          />
        ))}
        {runs.map((run) => (
          <Readings
            key={run.id}
            run={run}
            x={x}
            y={y}
            faded={faded(run.blade)}
            dullest={dullest}
            first={isFirst(run, runs)}
          />
        ))}
      </g>
      {runs.map((run) => (
        <Whisker
          key={run.id}
          run={run}
          x={x}
          y={y(end ?? dullest)}
          right={width - PAD.right + 6}
          faded={faded(run.blade)}
          row={runs.indexOf(run)}
        />
      ))}
      {(ends.length > 1 ? ends : []).map(({ run, at }) => (
        <g
          key={run.id}
          onPointerEnter={() => onHighlight(run.blade)}
          onPointerLeave={() => onHighlight(null)}
          opacity={faded(run.blade) ? 0.3 : 1}
        >
          <path
            d={markPath(markOf(run.mark), endX(run, x, width) + 12, at - 4, 5)}
            fill={markOf(run.mark).colour}
          />
          <text
            x={endX(run, x, width) + 21}
            y={at}
            fontSize="13"
            fontWeight="700"
            fill="var(--ink)"
            stroke="var(--paper)"
            strokeWidth={3}
            paintOrder="stroke"
            className="cond"
          >
            {run.blade}
          </text>
        </g>
      ))}
    </svg>
  );
}

type Scale = ReturnType<typeof scaleLinear<number, number>>;

const clamp = (v: number, a: number, b: number) => Math.min(Math.max(v, a), b);

function endX(run: ChartRun, x: Scale, width: number): number {
  const last = run.band?.counts.at(-1) ?? run.readings.at(-1)?.count ?? 0;
  return Math.min(x(last), width - PAD.right);
}

function isFirst(run: ChartRun, runs: readonly ChartRun[]): boolean {
  return runs.find((r) => r.blade === run.blade)?.id === run.id;
}

function lastOfBlades(runs: readonly ChartRun[]): ChartRun[] {
  const byBlade = new Map<string, ChartRun>();
  for (const run of runs) {
    const known = byBlade.get(run.blade);
    if (!known || (run.band?.counts.at(-1) ?? 0) > (known.band?.counts.at(-1) ?? 0))
      byBlade.set(run.blade, run);
  }
  return [...byBlade.values()];
}

interface EndLabel {
  readonly run: ChartRun;
  readonly left: number;
  readonly right: number;
  readonly at: number;
}

const END_GAP = 17;
const LETTER = 7;
const MOVED_AT_MOST = 40;

/**
 * Labels at the ends of their curves, none below the floor or on another; one that would come to
 * stand far from its curve is left to the ladder.
 */
function placed(labels: readonly EndLabel[], floor: number): EndLabel[] {
  const done: EndLabel[] = [];
  for (const label of [...labels].sort((a, b) => b.at - a.at)) {
    let at = Math.min(label.at, floor);
    const beside = done.filter((d) => d.left < label.right && label.left < d.right);
    for (const other of beside) if (Math.abs(other.at - at) < END_GAP) at = other.at - END_GAP;
    if (Math.abs(at - Math.min(label.at, floor)) <= MOVED_AT_MOST) done.push({ ...label, at });
  }
  return done;
}

interface Place {
  readonly at: number;
  readonly level: number;
}

const LABEL = { width: 96, height: 20 };

/** Whether a label at a level has fewer marks in its way at the left end than at the right. */
function isFreer(marks: readonly Place[], level: number, left: number, right: number): boolean {
  const near = marks.filter((mark) => Math.abs(mark.level - level + 4) < LABEL.height);
  const atLeft = near.filter((mark) => mark.at < left + LABEL.width).length;
  const atRight = near.filter((mark) => mark.at > right - LABEL.width).length;
  return atLeft <= atRight;
}

function Axes({
  x,
  y,
  width,
  height,
  limits,
  unit,
  marks,
}: {
  x: Scale;
  y: Scale;
  width: number;
  height: number;
  limits: readonly Limit[];
  unit: string;
  marks: readonly Place[];
}) {
  const floor = height - PAD.bottom;
  const end = width - PAD.right;
  return (
    <g fontSize="13" fill="var(--ink-2)">
      <text x={4} y={14}>
        sharp, gf
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

function Curve({
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

function Readings({
  run,
  x,
  y,
  faded,
  dullest,
  first,
}: {
  run: ChartRun;
  x: Scale;
  y: Scale;
  faded: boolean;
  dullest: number;
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
          `${run.blade}, edge ${run.edge}: ${Math.round(r.force_gf)} gf at ` +
          `${r.count}${r.struck ? ", excluded" : ""}`;
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
                ↓ {Math.round(r.force_gf)}
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

function Whisker({
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
