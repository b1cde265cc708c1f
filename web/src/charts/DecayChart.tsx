import { scaleLinear } from "d3-scale";
import { useId } from "react";
import { markOf, markPath } from "../domain/marks";
import { Axes, Curve, Readings, Whisker } from "./DecayParts";
import {
  type ChartRun,
  clamp,
  endX,
  isFirst,
  LETTER,
  type Limit,
  lastOfBlades,
  PAD,
  placed,
  wholeOf,
} from "./decay";
import type { Span } from "./useChartView";

interface Props {
  title: string;
  runs: readonly ChartRun[];
  /** Force limits in the order they are met; the last one ends the run. */
  limits: readonly Limit[];
  unit: string;
  /** In what sharpness is given. */
  forceUnit?: string;
  /** Sharp below instead of above. */
  isTurned?: boolean;
  /** The part of the axis that is shown; all of it where nothing is said. */
  span?: Span;
  width: number;
  height: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

/** How far beyond the last limit the axis goes; a reading further off is named at its end. */
const FARTHEST = 1.8;

/**
 * Sharpness over the count, sharp on top: every reading, each edge's curve with its band, limits as
 * lines.
 */
export function DecayChart({
  title,
  runs,
  limits,
  unit,
  forceUnit = "gf",
  isTurned = false,
  span,
  width,
  height,
  highlighted,
  onHighlight,
}: Props) {
  const titleId = useId();
  const readings = runs.flatMap((r) => r.readings);
  const [from, to] = span ?? wholeOf(runs);
  const shown = readings.filter((r) => r.count >= from && r.count <= to);
  const forces = (shown.length ? shown : readings).map((r) => r.force_gf);
  const sharpest = Math.min(120, ...forces) * 0.95;
  const end = limits.at(-1)?.gf ?? null;
  const dullest =
    end === null
      ? Math.max(200, ...forces) * 1.08
      : Math.max(end * 1.13, ...forces.map((f) => Math.min(f * 1.03, end * FARTHEST)));
  const x = scaleLinear([from, to], [PAD.left, width - PAD.right]);
  const up: Span = [PAD.top, height - PAD.bottom];
  const y = scaleLinear([sharpest, dullest], isTurned ? [up[1], up[0]] : up);
  const clip = useId();
  const faded = (blade: string) => highlighted !== null && highlighted !== blade;
  const ends = placed(
    lastOfBlades(runs.filter((run) => endX(run, x, width) > PAD.left)).map((run) => {
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
          height={height - PAD.top - PAD.bottom + 16}
        />
      </clipPath>
      <Axes
        x={x}
        y={y}
        width={width}
        height={height}
        limits={limits}
        unit={unit}
        top={`${isTurned ? "dull" : "sharp"}, ${forceUnit}`}
        marks={shown.map((r) => ({ at: x(r.count), level: y(r.force_gf) }))}
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
            forceUnit={forceUnit}
            isTurned={isTurned}
            first={isFirst(run, runs)}
          />
        ))}
        {runs.map((run, row) => (
          <Whisker
            key={run.id}
            run={run}
            x={x}
            y={y(end ?? dullest)}
            right={width - PAD.right + 6}
            faded={faded(run.blade)}
            row={row}
          />
        ))}
      </g>
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
