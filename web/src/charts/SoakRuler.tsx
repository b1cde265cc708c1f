import { scaleLinear } from "d3-scale";

export interface RulerDuty {
  readonly what: string;
  readonly says: string;
  readonly due_h: number;
  readonly done_h: number | null;
  readonly is_late: boolean;
}

const TOP = 26;

export interface RulerPhase {
  readonly medium: string;
  readonly from_h: number;
  readonly to_h: number;
}

/**
 * The hours of a soak as a ruler: looks above the line, what is done between below; filled where
 * done, hollow where still to come, and a lead line at now.
 */
export function SoakRuler({
  whole,
  now,
  duties,
  phases = [],
  width,
}: {
  whole: number;
  now: number;
  duties: readonly RulerDuty[];
  phases?: readonly RulerPhase[];
  width: number;
}) {
  const x = scaleLinear([0, Math.max(whole, 1)], [10, width - 34]);
  const inDays = whole >= 72;
  const unit = inDays ? 24 : 1;
  const every = Math.max(1, Math.ceil(whole / unit / Math.max(3, width / 70)));
  const ticks = Array.from(
    { length: Math.floor(whole / unit / every) + 1 },
    (_, i) => i * every * unit,
  );
  const height = phases.length ? 94 : 74;
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${duties.map((d) => `${d.says} at ${d.due_h} h: ${state(d)}`).join("; ")}; now at ${now.toFixed(1)} h`}
      className="block max-w-full"
    >
      <rect x={x(0)} y={TOP - 4} width={x(whole) - x(0)} height={8} fill="var(--steel)" />
      <rect
        x={x(0)}
        y={TOP - 4}
        width={Math.max(0, x(Math.min(now, whole)) - x(0))}
        height={8}
        fill="var(--kraft)"
      />
      {phases.map((phase) => (
        <g key={phase.from_h}>
          {phase.from_h > 0 ? (
            <line
              x1={x(phase.from_h)}
              x2={x(phase.from_h)}
              y1={TOP - 10}
              y2={TOP + 62}
              stroke="var(--ink-2)"
              strokeDasharray="1 3"
            />
          ) : null}
          <text x={x(phase.from_h) + 4} y={TOP + 62} fontSize={13} fill="var(--ink-2)">
            {phase.medium}
          </text>
        </g>
      ))}
      {ticks.map((hour) => (
        <g key={hour}>
          <line x1={x(hour)} x2={x(hour)} y1={TOP + 4} y2={TOP + 12} stroke="var(--ink-2)" />
          <text x={x(hour)} y={TOP + 44} fontSize={13} textAnchor="middle" fill="var(--ink-2)">
            {inDays ? `${hour / 24} d` : `${hour} h`}
          </text>
        </g>
      ))}
      {duties.map((duty) => {
        const isLook = duty.what === "look";
        const y = isLook ? TOP : TOP + 20;
        return (
          <path
            key={`${duty.what}-${duty.due_h}`}
            d={isLook ? `M${x(duty.due_h)} ${y - 9}l7 -11h-14z` : `M${x(duty.due_h)} ${y - 6}v10`}
            fill={
              duty.done_h === null ? "var(--sheet)" : duty.is_late ? "var(--rust)" : "var(--ink)"
            }
            stroke={
              duty.done_h === null ? "var(--ink-2)" : duty.is_late ? "var(--rust)" : "var(--ink)"
            }
            strokeWidth={isLook ? 1.5 : duty.done_h === null ? 1.5 : 4}
          />
        );
      })}
      {now > 0 && now < whole ? (
        <line x1={x(now)} x2={x(now)} y1={2} y2={TOP + 16} stroke="var(--next)" strokeWidth={2.5} />
      ) : null}
    </svg>
  );
}

function state(duty: RulerDuty): string {
  if (duty.done_h === null) return "to come";
  return duty.is_late ? "done late" : "done";
}
