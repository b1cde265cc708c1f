import { scaleLinear, scalePoint } from "d3-scale";
import { line } from "d3-shape";
import { markOf, markPath } from "../domain/marks";

interface Mean {
  readonly part: string;
  readonly operator: string;
  readonly mean: number;
}

const [LEFT, RIGHT, TOP, HEIGHT] = [56, 16, 34, 290];
const FLOOR = HEIGHT - 40;
const IN_TURN = new Intl.Collator("en", { numeric: true });

/** What each operator reads of each part on average: lines that run together are hands that agree. */
export function GaugeChart({
  means,
  marks,
  unit,
  width,
}: {
  means: readonly Mean[];
  /** The mark of each operator. */
  marks: ReadonlyMap<string, number>;
  unit: string;
  width: number;
}) {
  const parts = [...new Set(means.map((each) => each.part))].sort(IN_TURN.compare);
  const values = means.map((each) => each.mean);
  const x = scalePoint(parts, [LEFT + 14, width - RIGHT - 14]);
  const y = scaleLinear([Math.min(...values), Math.max(...values)], [FLOOR, TOP]).nice();
  const path = line<Mean>(
    (each) => x(each.part) ?? 0,
    (each) => y(each.mean),
  );
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={means.map((m) => `${m.operator} reads ${m.mean} of ${m.part}`).join("; ")}
      className="block max-w-full"
    >
      <g fontSize={13} fill="var(--ink-2)">
        <text x={4} y={14}>
          mean, {unit}
        </text>
        {y.ticks(5).map((value) => (
          <g key={value}>
            <line x1={LEFT} x2={width - RIGHT} y1={y(value)} y2={y(value)} stroke="var(--line)" />
            <text x={LEFT - 8} y={y(value) + 4} textAnchor="end">
              {value}
            </text>
          </g>
        ))}
        {parts.map((part) => (
          <text key={part} x={x(part)} y={FLOOR + 20} textAnchor="middle">
            {part}
          </text>
        ))}
        <text x={width - RIGHT} y={HEIGHT - 4} textAnchor="end">
          part
        </text>
      </g>
      {[...marks].map(([operator, mark]) => {
        const look = markOf(mark);
        const own = means
          .filter((each) => each.operator === operator)
          .sort((a, b) => IN_TURN.compare(a.part, b.part));
        return (
          <g key={operator}>
            <path
              d={path(own) ?? ""}
              fill="none"
              stroke={look.colour}
              strokeWidth={2}
              strokeDasharray={look.dash}
            />
            {own.map((each) => (
              <path
                key={each.part}
                d={markPath(look, x(each.part) ?? 0, y(each.mean), 5)}
                fill={look.colour}
              />
            ))}
          </g>
        );
      })}
    </svg>
  );
}
