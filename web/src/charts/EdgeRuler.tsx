/** Millimetres from the heel under an edge; broken where its length is assumed. */
export function Ruler({
  x,
  length,
  y,
  detail,
  known,
}: {
  x: (mm: number) => number;
  length: number;
  y: number;
  detail: boolean;
  known: boolean;
}) {
  const ticks = Array.from({ length: Math.floor(length / 10) + 1 }, (_, i) => i * 10);
  return (
    <g stroke="var(--ink-2)" strokeWidth="1" strokeDasharray={known ? undefined : "2 3"}>
      {ticks.map((mm) => (
        <line key={mm} x1={x(mm)} x2={x(mm)} y1={y} y2={y + (mm % 50 === 0 ? 6 : 3.5)} />
      ))}
      {detail
        ? ticks
            .filter((mm) => mm % 20 === 0)
            .map((mm) => (
              <text
                key={mm}
                x={x(mm)}
                y={y + 17}
                textAnchor="middle"
                fontSize="11"
                fill="var(--ink-2)"
                stroke="none"
              >
                {mm === 0 ? "heel" : known ? mm : ""}
              </text>
            ))
        : null}
    </g>
  );
}
