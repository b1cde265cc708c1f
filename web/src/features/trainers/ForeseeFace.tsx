import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import type { Round } from "../../api/trainers";
import { useWidth } from "../../ui/useWidth";

interface Point {
  readonly count: number;
  readonly gf: number;
}
const [HEIGHT, LEFT, RIGHT, TOP, BOTTOM] = [320, 52, 18, 16, 38];
const BLUNTEST_GF = 520;
/** How far beyond the last reading the axis goes: it must not give the life away. */
const AHEAD = 3.2;

/** The first readings of an edge, and once answered the whole of its true course. */
export function ForeseeFace({ round, later }: { round: Round; later: readonly Point[] }) {
  const { ref, width } = useWidth<HTMLDivElement>(760);
  const last = Math.max(...round.readings.map((r) => r.count), 1);
  const limit = round.limit_gf ?? 400;
  const x = scaleLinear([0, last * AHEAD], [LEFT, width - RIGHT]);
  const y = scaleLinear([100, BLUNTEST_GF], [TOP, HEIGHT - BOTTOM]).clamp(true);
  const course = line<Point>(
    (p) => x(p.count),
    (p) => y(p.gf),
  )(later.filter((p) => p.count <= last * AHEAD && p.gf <= BLUNTEST_GF));
  return (
    <div ref={ref}>
      <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} role="img">
        <title>
          {round.readings.map((r) => `${r.gf} gf at ${r.count}`).join(", ")}
          {`; dull at ${limit} gf`}
        </title>
        {[200, 300, 400, 500].map((gf) => (
          <g key={gf} fontSize={13} fill="var(--ink-2)">
            <line x1={LEFT} x2={width - RIGHT} y1={y(gf)} y2={y(gf)} stroke="var(--line)" />
            <text x={LEFT - 8} y={y(gf) + 4} textAnchor="end">
              {gf}
            </text>
          </g>
        ))}
        <line
          x1={LEFT}
          x2={width - RIGHT}
          y1={y(limit)}
          y2={y(limit)}
          stroke="var(--ink)"
          strokeWidth={2}
        />
        <text x={width - RIGHT} y={y(limit) - 7} textAnchor="end" fontSize={13} fontWeight={700}>
          dull, {limit} gf
        </text>
        {x.ticks(8).map((count) => (
          <text
            key={count}
            x={x(count)}
            y={HEIGHT - BOTTOM + 18}
            fontSize={13}
            textAnchor="middle"
            fill="var(--ink-2)"
          >
            {count}
          </text>
        ))}
        <text x={width - RIGHT} y={HEIGHT - 4} fontSize={13} textAnchor="end" fill="var(--ink-2)">
          cuts
        </text>
        {course ? <path d={course} fill="none" stroke="var(--next)" strokeWidth={2.4} /> : null}
        {round.readings.map((r) => (
          <circle key={r.count} cx={x(r.count)} cy={y(r.gf)} r={5} fill="var(--ink)" />
        ))}
      </svg>
    </div>
  );
}
