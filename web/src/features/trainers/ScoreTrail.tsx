const [WIDTH, HEIGHT] = [240, 44];

/** The share of right answers, session by session. */
export function ScoreTrail({ name, scores }: { name: string; scores: readonly number[] }) {
  const shown = scores.slice(-20);
  const x = (i: number) => (shown.length === 1 ? 8 : 8 + (i * (WIDTH - 16)) / (shown.length - 1));
  const y = (score: number) => HEIGHT - 6 - score * (HEIGHT - 12);
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width={WIDTH} height={HEIGHT} role="img">
      <title>{`${name}: ${shown.map((s) => `${Math.round(100 * s)} %`).join(", ")} right`}</title>
      {[0, 1].map((end) => (
        <line key={end} x1={0} x2={WIDTH} y1={y(end)} y2={y(end)} stroke="var(--line)" />
      ))}
      <polyline
        points={shown.map((score, i) => `${x(i)},${y(score)}`).join(" ")}
        fill="none"
        stroke="var(--ink-2)"
        strokeWidth={1.4}
      />
      <circle cx={x(shown.length - 1)} cy={y(shown.at(-1) ?? 0)} r={4.5} fill="var(--next)" />
    </svg>
  );
}
