import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { useWidth } from "../ui/useWidth";
import type { Ends, ZoneRows, ZoneUse } from "./zones";

const FILL: Record<ZoneUse, string> = {
  cut: "var(--hemp)",
  control: "var(--sheet)",
  taped: "var(--steel)",
};

/** The zones drawn along the edge, each with a grip at both ends. */
export function ZoneDrawing({
  zones,
  ends,
  length,
}: {
  zones: ZoneRows;
  ends: Ends;
  length: number;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(480);
  const drawing = useRef<SVGSVGElement>(null);
  const margin = 14;
  const scale = (width - 2 * margin) / length;
  const x = (mm: number) => margin + mm * scale;
  const at = (event: PointerEvent) => {
    const left = drawing.current?.getBoundingClientRect().left ?? 0;
    return Math.min(length, Math.max(0, Math.round((event.clientX - left - margin) / scale)));
  };
  return (
    <div ref={ref}>
      <svg
        ref={drawing}
        width={width}
        height={64}
        className="touch-none"
        aria-label="Zones along the edge"
      >
        <title>Zones along the edge, heel left, tip right</title>
        <line x1={x(0)} x2={x(length)} y1={18} y2={18} stroke="var(--ink)" strokeWidth="2.4" />
        {Array.from({ length: Math.floor(length / 10) + 1 }, (_, i) => i * 10).map((mm) => (
          <g key={mm} stroke="var(--ink-2)">
            <line x1={x(mm)} x2={x(mm)} y1={46} y2={mm % 50 === 0 ? 53 : 50} />
            {mm % 20 === 0 ? (
              <text
                x={x(mm)}
                y={63}
                fontSize="11"
                textAnchor="middle"
                fill="var(--ink-2)"
                stroke="none"
              >
                {mm === 0 ? "heel" : mm}
              </text>
            ) : null}
          </g>
        ))}
        {zones.rows.map((zone, i) => {
          const [from, to] = ends[i] ?? [];
          const use = zone.use as ZoneUse;
          if (typeof from !== "number" || typeof to !== "number") return null;
          return (
            <g key={zone.id}>
              <rect
                x={x(from)}
                y={22}
                width={Math.max(x(to) - x(from), 0)}
                height={22}
                fill={FILL[use]}
                stroke="var(--ink)"
                strokeDasharray={use === "control" ? "3 3" : undefined}
              />
              <Grip
                at={from}
                x={x(from)}
                label={`Zone ${i + 1}, from`}
                length={length}
                read={at}
                onMove={(mm) => zones.set(zone.id, { from_mm: String(mm) })}
              />
              <Grip
                at={to}
                x={x(to)}
                label={`Zone ${i + 1}, to`}
                length={length}
                read={at}
                onMove={(mm) => zones.set(zone.id, { to_mm: String(mm) })}
              />
            </g>
          );
        })}
      </svg>
    </div>
  );
}

/** One end of a zone: dragged, or moved by the arrow keys. */
function Grip({
  at,
  x,
  label,
  length,
  read,
  onMove,
}: {
  at: number;
  x: number;
  label: string;
  length: number;
  read: (event: PointerEvent) => number;
  onMove: (mm: number) => void;
}) {
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (!step) return;
    event.preventDefault();
    onMove(Math.min(length, Math.max(0, at + step * (event.shiftKey ? 10 : 1))));
  };
  return (
    <rect
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={length}
      aria-valuenow={at}
      aria-valuetext={`${at} mm from the heel`}
      x={x - 6}
      y={12}
      width={12}
      height={36}
      rx={3}
      fill="var(--paper)"
      stroke="var(--ink)"
      strokeWidth="1.6"
      className="cursor-ew-resize"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) onMove(read(event));
      }}
    />
  );
}
