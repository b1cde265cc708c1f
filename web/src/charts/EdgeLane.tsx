import type { StripEdge } from "./stripEdge";

interface LaneProps {
  edge: StripEdge;
  fullCuts: number;
  y: number;
  height: number;
  x: (mm: number) => number;
  length: number;
  hatch: string;
  colour: string;
  detail: boolean;
}

/** One sharpening of the edge, with its cuts, zones and what was seen on it. */
export function Lane({ edge, fullCuts, y, height, x, length, hatch, colour, detail }: LaneProps) {
  const from = Math.min(edge.zoneFromMm ?? 0, length);
  const to = Math.max(edge.zoneToMm ?? length, from); // a length corrected later may be shorter
  const left = x(from);
  const room = x(to) - left;
  const pitch = room / Math.max(fullCuts, edge.cuts, 1);
  const whole = Math.floor(edge.cuts);
  const strokes = pitch >= 2.2 ? Array.from({ length: whole }, (_, i) => i) : [];
  const end = left + whole * pitch;
  const planned = edge.zones?.length ? edge.zones : null;
  const taped: Array<[number, number]> = planned
    ? planned.filter((z) => z.use === "taped").map((z) => [z.fromMm, z.toMm])
    : [
        [0, from],
        [to, length],
      ];
  const kept = planned?.filter((z) => z.use === "control") ?? [];
  return (
    <g>
      {taped.map(([a, b]) =>
        b - a > 0.1 ? (
          <rect
            key={a}
            x={x(a)}
            y={y}
            width={x(b) - x(a)}
            height={height}
            fill={`url(#${hatch})`}
          />
        ) : null,
      )}
      {kept.map((z) => (
        <rect
          key={z.fromMm}
          x={x(z.fromMm)}
          y={y}
          width={x(z.toMm) - x(z.fromMm)}
          height={height}
          fill="none"
          stroke="var(--steel-2)"
          strokeWidth="0.9"
          strokeDasharray="2 2"
        />
      ))}
      <rect
        x={left}
        y={y}
        width={room}
        height={height}
        fill="var(--sheet)"
        stroke="var(--steel-2)"
        strokeWidth="0.7"
      />
      {strokes.map((i) => (
        <rect
          key={i}
          x={left + i * pitch + pitch * 0.18}
          y={y}
          width={Math.max(pitch * 0.62, 1.2)}
          height={height}
          fill="var(--ink)"
          opacity={0.22 + 0.68 * edge.worn * ((i + 1) / whole)}
        />
      ))}
      {strokes.length === 0 && whole > 0 ? (
        <rect
          x={left}
          y={y}
          width={end - left}
          height={height}
          fill="var(--ink)"
          opacity={0.25 + 0.45 * edge.worn}
        />
      ) : null}
      {(edge.seen ?? []).map((s) => (
        <path
          key={`${s.kind}${s.atMm}`}
          d={seenPath(s.kind, x(s.atMm), y, height)}
          fill={s.kind === "chip" ? "var(--paper)" : "none"}
          stroke={s.kind === "glint" ? "var(--glint)" : "var(--rust)"}
          strokeWidth="1.6"
        />
      ))}
      {edge.live ? (
        <rect x={end - 1} y={y - 2} width={3.5} height={height + 4} fill={colour} />
      ) : null}
      {detail ? (
        <>
          <text
            x={x(0) - 6}
            y={y + height - 0.5}
            textAnchor="end"
            fontSize="11.5"
            fill="var(--ink-2)"
          >
            {edge.number}
          </text>
          <text
            x={x(length) + 6}
            y={y + height - 0.5}
            fontSize="11.5"
            fill="var(--ink-2)"
            className="cond"
          >
            {edge.label}
          </text>
        </>
      ) : null}
    </g>
  );
}

/** A glint is a small star, a chip a bite out of the lane, a roll a hook, a burr a tuft. */
function seenPath(kind: string, x: number, y: number, height: number): string {
  const middle = y + height / 2;
  if (kind === "chip") return `M${x - 4},${y}L${x},${y + height}L${x + 4},${y}Z`;
  if (kind === "roll") return `M${x},${y}v${height}q4,0 4,-4`;
  if (kind === "burr") return `M${x - 2},${y}v${height}M${x + 2},${y}v${height}`;
  return `M${x - 4},${middle}h8M${x},${middle - 4}v8`;
}
