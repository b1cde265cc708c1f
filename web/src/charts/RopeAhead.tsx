import { useId } from "react";

interface Props {
  count: number;
  nextCheck: number | null;
  /** Checks of a fixed schedule beyond the next one. */
  later?: readonly number[];
  band: readonly [number, number] | null;
  bandName: string;
  width: number;
  height?: number;
  /** Board has flutes where rope has a lay. */
  board?: boolean;
}

/**
 * The medium ahead: what was cut lies in pieces at the left, the next check stands on the rope,
 * doubt is a shadow on it.
 */
export function RopeAhead({
  count,
  nextCheck,
  later = [],
  band,
  bandName,
  width,
  height = 116,
  board = false,
}: Props) {
  const lay = useId();
  const from = Math.max(0, Math.floor(count) - 8);
  const ahead = Math.max(nextCheck ?? 0, Math.min(band?.[1] ?? 0, count + 40), count + 12);
  const to = Math.min(Math.ceil(ahead) + 2, from + 60);
  const k = width / (to - from);
  const x = (n: number) => (n - from) * k;
  const top = 36;
  const thick = 40;
  const pieces = Array.from({ length: Math.max(0, Math.floor(count) - from) }, (_, i) => from + i);
  const label =
    nextCheck === null
      ? "no check is planned"
      : nextCheck <= count
        ? "a check is due now"
        : `next check at ${nextCheck}`;
  const shadow = band ? [Math.max(band[0], count), Math.min(band[1], to)] : null;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${count} cut; ${label}`}
      className="block max-w-full"
    >
      <defs>
        <pattern id={lay} width={15} height={thick} patternUnits="userSpaceOnUse">
          <rect width={15} height={thick} fill={board ? "var(--kraft)" : "var(--hemp)"} />
          {board ? (
            <path
              d={
                `M0,4H15M0,${thick - 4}H15M0,${thick / 2}H15M0,${thick / 2}C4,${thick / 2} 4,5 ` +
                `7.5,5S11,${thick / 2} 15,${thick / 2}M0,${thick - 5}C4,${thick - 5} ` +
                `4,${thick / 2} 7.5,${thick / 2}S11,${thick - 5} 15,${thick - 5}`
              }
              stroke="#7d5c30"
              strokeWidth={1.8}
              fill="none"
            />
          ) : (
            <>
              <rect width={15} height={thick} fill="var(--hemp)" />
              <path
                d={
                  `M-4,${thick}C2,${thick * 0.66} 6,${thick * 0.34} ` +
                  `12,0M11,${thick}C17,${thick * 0.66} 21,${thick * 0.34} 27,0`
                }
                stroke="#7d5c30"
                strokeWidth={2.2}
                fill="none"
              />
              <path
                d={`M1,${thick}C7,${thick * 0.66} 11,${thick * 0.34} 17,0`}
                stroke="#cda671"
                strokeWidth={1}
                fill="none"
              />
            </>
          )}
        </pattern>
      </defs>
      {pieces.map((n) => (
        <g key={n} opacity={0.25 + 0.5 * ((n - from + 1) / (pieces.length + 1))}>
          <rect
            x={x(n) + k * 0.16}
            y={top + thick - 9 - ((n * 7) % 5)}
            width={k * 0.68}
            height={9}
            rx={1}
            fill="var(--kraft)"
          />
        </g>
      ))}
      <rect x={x(count)} y={top} width={width - x(count)} height={thick} fill={`url(#${lay})`} />
      {shadow && (shadow[1] ?? 0) > (shadow[0] ?? 0) ? (
        <g>
          <rect
            x={x(shadow[0] ?? 0)}
            y={top - 6}
            width={((shadow[1] ?? 0) - (shadow[0] ?? 0)) * k}
            height={thick + 12}
            fill="var(--rust)"
            opacity={0.2}
          />
          <text
            x={Math.min(x(shadow[0] ?? 0) + 6, width - 150)}
            y={top - 14}
            fontSize={14}
            fill="var(--rust)"
          >
            {bandName} expected here
          </text>
        </g>
      ) : null}
      <rect x={x(count) - 2.5} y={top - 14} width={5} height={thick + 28} fill="var(--ink)" />
      {later
        .filter((at) => at > Math.max(count, nextCheck ?? 0) && at <= to)
        .map((at) => (
          <line
            key={at}
            x1={x(at)}
            x2={x(at)}
            y1={top}
            y2={top + thick + 8}
            stroke="var(--ink)"
            strokeWidth={1.2}
          />
        ))}
      {nextCheck !== null && nextCheck > count && nextCheck <= to ? (
        <g>
          <line
            x1={x(nextCheck)}
            x2={x(nextCheck)}
            y1={top - 8}
            y2={top + thick + 8}
            stroke="var(--ink)"
            strokeWidth={3}
          />
          <text
            x={x(nextCheck)}
            y={top + thick + 26}
            fontSize={19}
            fontWeight={700}
            textAnchor="middle"
            fill="var(--ink)"
          >
            {nextCheck}
          </text>
        </g>
      ) : null}
    </svg>
  );
}
