import { scaleLinear } from "d3-scale";
import { counted } from "../domain/format";

/** One check that is judged or carries a number; `place` is that of a grade, 1 for the sharpest. */
export interface Look {
  readonly id: string;
  readonly kind: string;
  readonly count: number;
  readonly outcome: string | null;
  readonly seen: string;
  readonly value: number | null;
  readonly place?: number;
  readonly struck: boolean;
}

const LANE = 62;
const LEFT = 12;

/**
 * Looks that pass or fail, or carry a value, in one lane for each kind over the count: dot clean,
 * ring doubt, cross lost, a grade by its place.
 */
export function LooksChart({
  looks,
  names,
  unit,
  width,
}: {
  looks: readonly Look[];
  names: ReadonlyMap<string, string>;
  unit: string;
  width: number;
}) {
  const kinds = [...names.keys()];
  const last = Math.max(4, ...looks.map((l) => l.count));
  const x = scaleLinear([0, last * 1.04], [LEFT + 8, width - 24]);
  const height = kinds.length * LANE + 40;
  const floor = kinds.length * LANE + 8;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={
        looks
          .map((l) => `${names.get(l.kind) ?? l.kind} at ${counted(l.count)}: ${said(l)}`)
          .join("; ") || "no look yet"
      }
      className="block max-w-full"
    >
      {kinds.map((kind, lane) => (
        <g key={kind}>
          <text x={LEFT} y={lane * LANE + 20} fontSize={15} fill="var(--ink-2)">
            {names.get(kind)}
          </text>
          <line
            x1={LEFT}
            x2={width - 12}
            y1={lane * LANE + 42}
            y2={lane * LANE + 42}
            stroke="var(--line)"
            strokeWidth={1.5}
          />
          {looks
            .filter((l) => l.kind === kind)
            .map((l, i, all) => (
              <Mark
                key={l.id}
                look={l}
                x={x(l.count)}
                y={
                  lane * LANE +
                  42 +
                  9 * all.slice(0, i).filter((o) => o.count === l.count).length * (i % 2 ? -1 : 1)
                }
              />
            ))}
        </g>
      ))}
      <g fontSize={13} fill="var(--ink-2)">
        {x.ticks(Math.max(3, Math.floor(width / 90))).map((n) => (
          <text key={n} x={x(n)} y={floor + 14} textAnchor="middle">
            {n}
          </text>
        ))}
        <text x={width - 12} y={floor + 30} textAnchor="end">
          {unit}
        </text>
      </g>
    </svg>
  );
}

export function said(look: Look): string {
  return look.seen || look.outcome || (look.value === null ? "" : String(look.value));
}

function Mark({ look, x, y }: { look: Look; x: number; y: number }) {
  const faded = look.struck ? 0.35 : 1;
  const number = look.place ?? look.value;
  if (number !== null)
    return (
      <text
        x={x}
        y={y + 5}
        fontSize={15}
        fontWeight={700}
        textAnchor="middle"
        fill="var(--ink)"
        opacity={faded}
      >
        {number}
      </text>
    );
  if (look.outcome === "pass")
    return <circle cx={x} cy={y} r={6} fill="var(--ink)" opacity={faded} />;
  if (look.outcome === "doubt")
    return (
      <circle
        cx={x}
        cy={y}
        r={5.5}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
        opacity={faded}
      />
    );
  return (
    <path
      d={`M${x - 6},${y - 6}l12,12m0,-12l-12,12`}
      stroke="var(--rust)"
      strokeWidth={3}
      fill="none"
      opacity={faded}
    />
  );
}
