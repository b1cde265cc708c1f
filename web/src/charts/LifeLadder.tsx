import { scaleLinear } from "d3-scale";
import { shortened, toUncertainty } from "../domain/format";
import { markOf, markPath } from "../domain/marks";

export interface Rung {
  readonly blade: string;
  readonly mark: number;
  readonly grade: string | null;
  readonly ranked: boolean;
  readonly words: string;
  readonly estimate: number | null;
  readonly low: number | null;
  readonly high: number | null;
  readonly edges: number;
  /** The same life on one edge length, in words. */
  readonly scaled?: string | undefined;
  /** The side on which the life has no end: it gets an arrow there. */
  readonly open?: "above" | "below" | null;
}

interface Props {
  rungs: readonly Rung[];
  tieGroups: readonly (readonly string[])[];
  width: number;
  highlighted: string | null;
  onHighlight: (blade: string | null) => void;
}

const STEP = 74;
const LEAST_LEFT = 96;
const CODE = 9.6;

/** Lives with their intervals, longest on top; what cannot be told apart is bracketed together. */
export function LifeLadder({ rungs, tieGroups, width, highlighted, onHighlight }: Props) {
  const top = Math.max(
    ...rungs.map((r) => Math.min(r.high ?? 0, 2.5 * (r.estimate ?? r.high ?? 0))),
    ...rungs.map((r) => (r.high === null ? 1.25 * (r.low ?? 0) : 0)),
    1,
  );
  const longest = Math.max(...rungs.map((r) => r.blade.length));
  const left = Math.min(Math.max(LEAST_LEFT, 40 + CODE * longest), 0.45 * width);
  const x = scaleLinear([0, top * 1.04], [left, width - 26]);
  const rowOf = (blade: string) => rungs.findIndex((r) => r.blade === blade);
  return (
    <div>
      <div className="relative">
        {rungs.map((rung) => (
          <button
            key={rung.blade}
            type="button"
            className={`block w-full cursor-pointer text-left
              ${highlighted === rung.blade ? "bg-sheet" : ""}`}
            style={{ height: STEP }}
            aria-label={`${rung.blade}: ${[rung.words, rung.scaled].filter(Boolean).join("; ")}`}
            onPointerEnter={() => onHighlight(rung.blade)}
            onPointerLeave={() => onHighlight(null)}
            onFocus={() => onHighlight(rung.blade)}
            onBlur={() => onHighlight(null)}
            onClick={() => onHighlight(rung.blade)}
          >
            <RungDrawing rung={rung} x={x} width={width} />
          </button>
        ))}
        <svg
          className="pointer-events-none absolute top-0 right-0"
          width={20}
          height={rungs.length * STEP}
          aria-hidden="true"
        >
          {tieGroups.map((group, i) => {
            const rows = group.map(rowOf).filter((r) => r >= 0);
            if (rows.length < 2) return null;
            const from = Math.min(...rows) * STEP + 14;
            const to = (Math.max(...rows) + 1) * STEP - 22;
            const at = 12 - (i % 2) * 6;
            return (
              <path
                key={group.join()}
                d={`M${at - 4},${from}h4V${to}h-4`}
                fill="none"
                stroke="var(--ink-2)"
                strokeWidth={1.5}
              />
            );
          })}
        </svg>
      </div>
    </div>
  );
}

function RungDrawing({
  rung,
  x,
  width,
}: {
  rung: Rung;
  x: ReturnType<typeof scaleLinear<number, number>>;
  width: number;
}) {
  const left = x(0);
  const look = markOf(rung.mark);
  const ink = rung.ranked ? "var(--ink)" : "var(--ink-2)";
  const { estimate, low, high } = rung;
  const clipped = high !== null && x(high) > width - 22;
  const end = high === null ? null : Math.min(x(high), width - 22);
  return (
    <svg width={width} height={STEP} aria-hidden="true" className="block">
      <path d={markPath(look, 12, 30, 8)} fill={look.colour} opacity={rung.ranked ? 1 : 0.5} />
      <text x={27} y={35} fontSize={17} fontWeight={700} fill={ink}>
        {shortened(rung.blade, (left - 40) / CODE)}
      </text>
      <text x={27} y={53} fontSize={13} fill="var(--ink-2)" className="cond">
        {rung.grade ?? "grade not named"}
      </text>
      <g opacity={rung.ranked ? 1 : 0.55}>
        {rung.open ? (
          <>
            <OpenEnd rung={rung} x={x} width={width} />
            <text x={left + 22} y={59} fontSize={13} fill="var(--ink-2)">
              {rung.words}
            </text>
          </>
        ) : estimate !== null ? (
          <>
            <line
              x1={x(0)}
              x2={x(estimate)}
              y1={30}
              y2={30}
              stroke={look.colour}
              strokeWidth={2.4}
              strokeDasharray={look.dash}
            />
            {low !== null && end !== null ? (
              <rect
                x={x(low)}
                y={21}
                width={Math.max(end - x(low), 2)}
                height={18}
                fill={look.colour}
                opacity={0.26}
              />
            ) : null}
            <line
              x1={x(estimate)}
              x2={x(estimate)}
              y1={17}
              y2={43}
              stroke={look.colour}
              strokeWidth={3}
            />
            <text
              x={x(estimate)}
              y={13}
              fontSize={17}
              fontWeight={700}
              textAnchor="middle"
              fill={ink}
            >
              {toUncertainty(estimate, low ?? estimate, high ?? estimate)}
            </text>
            {low !== null && high !== null ? (
              <text
                x={Math.min(Math.max(x(estimate), left + 40), width - 60)}
                y={57}
                fontSize={13}
                textAnchor="middle"
                fill="var(--ink-2)"
              >
                {toUncertainty(low, low, high)} to {toUncertainty(high, low, high)}
                {clipped ? " →" : ""}
              </text>
            ) : null}
          </>
        ) : low !== null && end !== null ? (
          <>
            <rect
              x={x(low)}
              y={21}
              width={Math.max(end - x(low), 2)}
              height={18}
              fill="none"
              stroke={look.colour}
              strokeWidth={2}
            />
            <text x={left + 22} y={59} fontSize={13} fill="var(--ink-2)">
              {rung.words}
            </text>
          </>
        ) : (
          <text x={left} y={35} fontSize={13} fill="var(--ink-2)">
            {rung.words}
          </text>
        )}
      </g>
      {rung.scaled ? (
        <text x={left} y={71} fontSize={12} fill="var(--ink-2)">
          {rung.scaled}
        </text>
      ) : null}
      {rung.ranked ? null : (
        <text x={left} y={13} fontSize={12} fontWeight={600} fill="var(--rust)">
          {estimate !== null && x(estimate) < left + 110 ? "" : "not ranked"}
        </text>
      )}
    </svg>
  );
}

/** A life with one open end: a line to what is known, and an arrow into what is not. */
function OpenEnd({
  rung,
  x,
  width,
}: {
  rung: Rung;
  x: ReturnType<typeof scaleLinear<number, number>>;
  width: number;
}) {
  const look = markOf(rung.mark);
  const above = rung.open === "above";
  const known = x((above ? rung.low : rung.high) ?? 0);
  const tip = above ? Math.min(known + 44, width - 24) : Math.max(known - 44, x(0));
  const back = above ? -8 : 8;
  return (
    <g stroke={look.colour} fill="none" strokeWidth={2.4}>
      {above ? <line x1={x(0)} x2={known} y1={30} y2={30} strokeDasharray={look.dash} /> : null}
      <line x1={known} x2={known} y1={19} y2={41} strokeWidth={3} />
      <path d={`M${known},30H${tip}M${tip + back},24L${tip},30L${tip + back},36`} />
    </g>
  );
}
