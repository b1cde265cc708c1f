import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Span } from "./useChartView";

export interface ClimateReading {
  readonly hours: number;
  readonly temperature_c: number | null;
  readonly humidity_percent: number | null;
}

const [LEFT, RIGHT, TOP, HEIGHT] = [52, 52, 14, 150];

/** Temperature (full line, left scale) and relative humidity (dashed, right scale) by the hour. */
export function ClimateCourse({
  readings,
  span,
  width,
}: {
  readings: readonly ClimateReading[];
  /** The hours that are shown. */
  span: Span;
  width: number;
}) {
  const warm = readings.flatMap((r) => (r.temperature_c === null ? [] : [r.temperature_c]));
  const x = scaleLinear([...span], [LEFT, width - RIGHT]);
  const y = scaleLinear(around(warm), [HEIGHT - 30, TOP]).nice();
  const damp = scaleLinear([0, 100], [HEIGHT - 30, TOP]);
  const paths = [
    { of: "temperature_c", at: y, dash: undefined, colour: "var(--ink)" },
    { of: "humidity_percent", at: damp, dash: "5 4", colour: "var(--next)" },
  ] as const;
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={readings.map(said).join("; ")}
      className="block max-w-full"
    >
      {x.ticks(Math.max(3, Math.floor(width / 140))).map((hour) => (
        <text key={hour} x={x(hour)} y={HEIGHT - 8} {...LABEL} textAnchor="middle">
          {hour} h
        </text>
      ))}
      {warm.length
        ? y.ticks(3).map((value) => (
            <text key={value} x={LEFT - 8} y={y(value) + 4} {...LABEL} textAnchor="end">
              {value} °C
            </text>
          ))
        : null}
      {readings.some((r) => r.humidity_percent !== null)
        ? [0, 50, 100].map((value) => (
            <text key={value} x={width - RIGHT + 8} y={damp(value) + 4} {...LABEL}>
              {value} %
            </text>
          ))
        : null}
      {paths.map(({ of, at, dash, colour }) => {
        const own = readings.filter(
          (r) => r[of] !== null && r.hours >= span[0] && r.hours <= span[1],
        );
        const path = line<ClimateReading>(
          (r) => x(r.hours),
          (r) => at(r[of] ?? 0),
        );
        return (
          <g key={of} stroke={colour} fill="none" strokeWidth={1.8}>
            <path d={path(own) ?? ""} strokeDasharray={dash} />
            {own.map((r) => (
              <circle key={r.hours} cx={x(r.hours)} cy={at(r[of] ?? 0)} r={3} fill={colour} />
            ))}
          </g>
        );
      })}
    </svg>
  );
}

const LABEL = { fontSize: 13, fill: "var(--ink-2)" } as const;

const around = (values: readonly number[]): [number, number] =>
  values.length ? [Math.min(...values) - 1, Math.max(...values) + 1] : [0, 40];

function said({ hours, temperature_c, humidity_percent }: ClimateReading): string {
  const parts = [
    temperature_c === null ? "" : `${temperature_c} °C`,
    humidity_percent === null ? "" : `${humidity_percent} % relative humidity`,
  ].filter(Boolean);
  return `${parts.join(", ")} at ${hours.toFixed(1)} h`;
}
