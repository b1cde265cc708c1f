import { scaleLinear } from "d3-scale";

/** Where along the blade hardness was read, heel left, tip right, and what it was there. */
export function HardnessMap({
  places,
  readings,
  lengthMm,
  width,
}: {
  places: readonly number[];
  readings: readonly number[];
  lengthMm: number | null;
  width: number;
}) {
  const end = lengthMm ?? Math.max(...places);
  const x = scaleLinear([0, end], [14, width - 22]);
  const read = places.map((at, i) => ({ at, hrc: readings[i] ?? 0, id: `${at} ${i}` }));
  const low = Math.min(...readings);
  const high = Math.max(...readings);
  const y = scaleLinear([low - 0.3, high + 0.3], [44, 20]);
  return (
    <svg
      width={width}
      height={66}
      viewBox={`0 0 ${width} 66`}
      role="img"
      aria-label={`Hardness along the blade: ${read
        .map((r) => `${r.hrc.toFixed(1)} HRC at ${r.at} mm`)
        .join(", ")}`}
      className="block max-w-full"
    >
      <line x1={14} x2={width - 22} y1={52} y2={52} stroke="var(--ink)" strokeWidth={2} />
      {read.map((r) => (
        <g key={r.id}>
          <line x1={x(r.at)} x2={x(r.at)} y1={y(r.hrc)} y2={52} stroke="var(--ink-2)" />
          <path
            d={`M${x(r.at)},${y(r.hrc) - 5}l4,5l-4,5l-4,-5Z`}
            fill={r.hrc === low && high - low > 1 ? "var(--paper)" : "var(--ink)"}
            stroke="var(--ink)"
          />
          <text x={x(r.at)} y={y(r.hrc) - 9} fontSize={11} textAnchor="middle" fill="var(--ink)">
            {r.hrc.toFixed(1)}
          </text>
          <text x={x(r.at)} y={64} fontSize={11} textAnchor="middle" fill="var(--ink-2)">
            {r.at}
          </text>
        </g>
      ))}
    </svg>
  );
}
