interface Props {
  title: string;
  /** Mean of each check, in the order they were made. */
  means: readonly number[];
  width?: number;
  height?: number;
}

/**
 * How an instrument read on its reference, check by check, against the mean of the first ones and 3
 * % around it.
 */
export function ReferenceTrail({ title, means, width = 300, height = 56 }: Props) {
  if (means.length === 0) return null;
  const base = means.slice(0, 5).reduce((sum, m) => sum + m, 0) / Math.min(means.length, 5);
  const span = Math.max(0.06, ...means.map((m) => Math.abs(m / base - 1) * 1.15));
  const y = (m: number) => height / 2 - ((m / base - 1) / span) * (height / 2 - 5);
  const x = (i: number) =>
    means.length === 1 ? width / 2 : 8 + (i * (width - 16)) / (means.length - 1);
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      className="block max-w-full"
    >
      <title>{title}</title>
      <rect
        x={0}
        width={width}
        y={y(base * 1.03)}
        height={y(base * 0.97) - y(base * 1.03)}
        fill="var(--hemp)"
        opacity={0.28}
      />
      <line x1={0} x2={width} y1={y(base)} y2={y(base)} stroke="var(--line)" strokeWidth={1.5} />
      <polyline
        points={means.map((m, i) => `${x(i)},${y(m)}`).join(" ")}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth={1.2}
      />
      {means.map((m, i) => (
        <circle
          // biome-ignore lint/suspicious/noArrayIndexKey: a check has nothing but its place
          key={i}
          cx={x(i)}
          cy={y(m)}
          r={i === means.length - 1 ? 4.5 : 3}
          fill={Math.abs(m / base - 1) > 0.03 ? "var(--rust)" : "var(--ink)"}
        />
      ))}
    </svg>
  );
}
