import { scaleLinear } from "d3-scale";

interface Point {
  readonly edges: number;
  readonly percent: number;
}

/**
 * The smallest difference a plan can show, against edges a blade; hours of work stand under each
 * step.
 */
export function PowerChart({
  points,
  edges,
  wanted,
  hoursAnEdge,
  blades,
  width,
  onChoose,
}: {
  points: readonly Point[];
  edges: number;
  wanted: number;
  hoursAnEdge: number | null;
  blades: number;
  width: number;
  onChoose: (edges: number) => void;
}) {
  if (points.length === 0) return null;
  const height = 250;
  const box = { left: 52, right: width - 12, top: 26, bottom: height - 52 };
  const most = Math.max(...points.map((p) => p.percent), wanted * 1.1);
  const x = scaleLinear([1, points.length], [box.left + 18, box.right - 18]);
  const y = scaleLinear([0, most], [box.bottom, box.top]).nice(4);
  const path = points
    .map((p, i) => `${i ? "L" : "M"}${x(p.edges).toFixed(1)},${y(p.percent).toFixed(1)}`)
    .join("");
  const here = points.find((p) => p.edges === edges);
  return (
    <svg width={width} height={height} className="max-w-full">
      <title>
        {`Smallest difference that can be shown against edges a blade: ${told(points)}`}
      </title>
      <text x={box.left - 44} y={14} fontSize="12.5" fill="var(--ink-2)">
        difference that can be shown, %
      </text>
      {y.ticks(4).map((t) => (
        <g key={t}>
          <line x1={box.left} x2={box.right} y1={y(t)} y2={y(t)} stroke="var(--line)" />
          <text x={box.left - 8} y={y(t) + 4} fontSize="12.5" textAnchor="end" fill="var(--ink-2)">
            {t}
          </text>
        </g>
      ))}
      <line
        x1={box.left}
        x2={box.right}
        y1={y(wanted)}
        y2={y(wanted)}
        stroke="var(--ink)"
        strokeDasharray="6 4"
      />
      <text x={box.right} y={y(wanted) - 5} fontSize="12.5" textAnchor="end" fill="var(--ink)">
        wanted, {wanted} %
      </text>
      <path d={path} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
      {points.map((p) => (
        <g key={p.edges}>
          <circle
            cx={x(p.edges)}
            cy={y(p.percent)}
            r={p.edges === edges ? 7 : 4}
            fill={p.edges === edges ? "var(--next)" : "var(--paper)"}
            stroke={p.edges === edges ? "var(--next)" : "var(--ink)"}
            strokeWidth="1.6"
          />
          <text
            x={x(p.edges)}
            y={box.bottom + 18}
            fontSize="12.5"
            textAnchor="middle"
            fill="var(--ink)"
            fontWeight={p.edges === edges ? 700 : 400}
          >
            {p.edges}
          </text>
          {hoursAnEdge !== null && (width > 480 || p.edges % 2 === 0) ? (
            <text
              x={x(p.edges)}
              y={box.bottom + 34}
              fontSize="11.5"
              textAnchor="middle"
              fill="var(--ink-2)"
            >
              {Math.round(hoursAnEdge * blades * p.edges)} h
            </text>
          ) : null}
          {/* biome-ignore lint/a11y/noStaticElementInteractions: for the pointer; the field beside does the same */}
          <rect
            x={x(p.edges) - 18}
            y={box.top}
            width={36}
            height={box.bottom - box.top + 38}
            fill="transparent"
            className="cursor-pointer"
            onClick={() => onChoose(p.edges)}
          />
        </g>
      ))}
      {here ? (
        <text
          x={x(here.edges) + 10}
          y={y(here.percent) - 10}
          fontSize="14"
          fontWeight="700"
          fill="var(--next)"
        >
          {Math.round(here.percent)} %
        </text>
      ) : null}
      <text x={box.right} y={height - 2} fontSize="12.5" textAnchor="end" fill="var(--ink-2)">
        edges a blade{hoursAnEdge !== null ? ", and hours of work for all of them" : ""}
      </text>
    </svg>
  );
}

const told = (points: readonly Point[]) =>
  points.map((p) => `${p.edges}: ${Math.round(p.percent)} %`).join(", ");
