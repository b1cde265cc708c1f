import { scaleLinear } from "d3-scale";

interface Verdict {
  readonly number: number;
  readonly percent: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly outcome: "right" | "wrong" | "silent";
}

const [LEFT, RIGHT, TOP, BOTTOM, STEP] = [14, 14, 30, 34, 4.4];
const COLOUR = { right: "var(--next)", wrong: "var(--rust)", silent: "var(--steel-2)" };

/**
 * Every played trial as its verdict would have it: a line for the 95 % interval, sorted by the
 * estimate. Right ones are full, silent ones grey, wrong ones red with a cross; the life stated is
 * the dashed line.
 */
export function PlayedChart({
  pair,
  truth,
  verdicts,
  width,
  chosen,
  onChoose,
}: {
  pair: string;
  truth: number;
  verdicts: readonly Verdict[];
  width: number;
  chosen: number | null;
  onChoose: (number: number) => void;
}) {
  const sorted = [...verdicts].sort((a, b) => (a.percent ?? 0) - (b.percent ?? 0));
  const ends = sorted.flatMap((v) => [v.low, v.high, v.percent]).filter((v) => v !== null);
  const least = Math.max(Math.min(0, truth, ...ends), -100);
  const most = Math.min(Math.max(0, truth, ...ends), 400);
  const height = TOP + sorted.length * STEP + BOTTOM;
  const floor = height - BOTTOM;
  const x = scaleLinear([least, most], [LEFT, width - RIGHT])
    .nice()
    .clamp(true);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${pair}: ${sorted.length} played verdicts, ${truth.toFixed(0)} % stated`}
      className="block max-w-full"
    >
      {x.ticks(6).map((tick) => (
        <g key={tick} fontSize={13} fill="var(--ink-2)">
          <line
            x1={x(tick)}
            x2={x(tick)}
            y1={TOP}
            y2={floor}
            stroke={tick === 0 ? "var(--ink)" : "var(--line)"}
            strokeWidth={tick === 0 ? 1.6 : 1}
          />
          <text x={x(tick)} y={floor + 18} textAnchor="middle">
            {tick > 0 ? `+${tick}` : tick} %
          </text>
        </g>
      ))}
      {sorted.map((verdict, i) => (
        <Line
          key={verdict.number}
          verdict={verdict}
          y={TOP + (i + 0.5) * STEP}
          x={x}
          isChosen={verdict.number === chosen}
          onChoose={onChoose}
        />
      ))}
      <line
        x1={x(truth)}
        x2={x(truth)}
        y1={TOP - 8}
        y2={floor}
        stroke="var(--ink)"
        strokeWidth={1.6}
        strokeDasharray="5 4"
      />
      <text
        x={x(truth)}
        y={TOP - 13}
        fontSize={13}
        fill="var(--ink)"
        textAnchor={x(truth) > width - 120 ? "end" : "middle"}
      >
        stated
      </text>
    </svg>
  );
}

function Line({
  verdict,
  y,
  x,
  isChosen,
  onChoose,
}: {
  verdict: Verdict;
  y: number;
  x: (value: number) => number;
  isChosen: boolean;
  onChoose: (number: number) => void;
}) {
  const { number, percent, low, high, outcome } = verdict;
  const colour = COLOUR[outcome];
  const [start, end] = [x(low ?? -100), x(high ?? 1e6)]; // an open end reaches the border
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: for the pointer; the list beside does the same
    <g onClick={() => onChoose(number)} className="cursor-pointer">
      <title>{`Trial ${number}: ${outcome}`}</title>
      <rect x={start} y={y - STEP / 2} width={end - start} height={STEP} fill="transparent" />
      <line x1={start} x2={end} y1={y} y2={y} stroke={colour} strokeWidth={isChosen ? 3.4 : 1.7} />
      {percent === null ? null : outcome === "wrong" ? (
        <path
          d={`M${x(percent) - 3},${y - 3}l6,6m0,-6l-6,6`}
          stroke={colour}
          strokeWidth="2"
          fill="none"
        />
      ) : (
        <circle
          cx={x(percent)}
          cy={y}
          r={2.2}
          fill={outcome === "right" ? colour : "var(--paper)"}
          stroke={colour}
        />
      )}
    </g>
  );
}
