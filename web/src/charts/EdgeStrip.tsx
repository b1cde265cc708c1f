import { type MouseEvent, useId } from "react";
import { markOf, markPath } from "../domain/marks";

/**
 * What was cut on one edge: its number, the zone, the cuts, and how far they wore it (0 fresh, 1
 * dull).
 */
export interface StripEdge {
  readonly number: number;
  readonly zoneFromMm: number | null;
  readonly zoneToMm: number | null;
  readonly cuts: number;
  readonly worn: number;
  readonly label: string;
  readonly live?: boolean;
  /** Planned stretches; what is taped is hatched, what is kept as a control stays an open frame. */
  readonly zones?: ReadonlyArray<{
    readonly fromMm: number;
    readonly toMm: number;
    readonly use: string;
  }>;
  /** Glints, rolls, chips and burr at their places. */
  readonly seen?: ReadonlyArray<{ readonly atMm: number; readonly kind: string }>;
  /** Caliper stations. */
  readonly stationsMm?: readonly number[];
}

interface Props {
  mark: number;
  title: string;
  edgeLengthMm: number | null;
  edges: readonly StripEdge[];
  width: number;
  /** Cuts that fill the zone; shared by strips that are to be compared. */
  fullCuts?: number;
  /** Room for mm figures and run labels; the small form keeps the drawing only. */
  detail?: boolean;
  highlighted?: boolean;
  /** Where the edge was tapped, mm from the heel, to the half millimetre. */
  onPlace?: ((mm: number) => void) | undefined;
}

const ASSUMED_LENGTH_MM = 100;

/**
 * The edge, straight and to scale in mm, heel left, tip right. Above the line the blade with its
 * ground bevel; below it one lane for each sharpening, oldest lowest, as the stone took the steel
 * away. A cut is a stroke in its lane, darker as the edge wears; what was taped off is hatched.
 */
export function EdgeStrip({
  mark,
  title,
  edgeLengthMm,
  edges,
  width,
  fullCuts = 40,
  detail = false,
  highlighted = false,
  onPlace,
}: Props) {
  const hatch = useId();
  const look = markOf(mark);
  const length = edgeLengthMm ?? ASSUMED_LENGTH_MM;
  const left = detail ? 34 : 16;
  const right = detail ? 64 : 8;
  const scale = (width - left - right) / length;
  const x = (mm: number) => left + mm * scale;
  const bladeHeight = detail ? 46 : 26;
  const bevel = detail ? 11 : 7;
  const base = bladeHeight + 6;
  const lane = detail ? 15 : 7;
  const shown = [...edges].sort((a, b) => b.number - a.number).slice(0, detail ? 6 : 3);
  const ruler = base + 4 + Math.max(shown.length, 1) * lane;
  const height = ruler + (detail ? 22 : 7);
  const top = base - bladeHeight;
  const tip = x(length);
  const shoulder = x(length * 0.7);
  const outline =
    `M${x(0) - 10},${top}L${shoulder},${top}C${x(length * 0.88)},${top + 1} ` +
    `${x(length * 0.97)},${base - bevel * 1.6} ` +
    `${tip},${base}L${x(0)},${base}L${x(0)},${base - bevel - 3}L${x(0) - 10},${base - bevel - 3}Z`;
  const grind =
    `M${x(0)},${base - bevel}L${x(length * 0.78)},${base - bevel}C${x(length * 0.9)},${base - bevel} ` +
    `${x(length * 0.96)},${base - bevel * 0.7} ${tip},${base}`;
  const described = shown.map(laneInWords).join("; ") || "not cut yet";
  const newest = shown[0];
  const place = (event: MouseEvent<SVGSVGElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    const mm = ((event.clientX - box.left) * (width / box.width) - left) / scale;
    onPlace?.(Math.round(2 * Math.min(Math.max(mm, 0), length)) / 2);
  };
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the place can be typed in mm, too
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${title}. ${described}`}
      className={`max-w-full
        ${onPlace ? "cursor-crosshair outline-2 outline-offset-4 outline-next" : ""}`}
      onClick={onPlace ? place : undefined}
    >
      <defs>
        <pattern
          id={hatch}
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="5" height="5" fill="var(--paper)" />
          <line x1="0" y1="0" x2="0" y2="5" stroke="var(--steel-2)" strokeWidth="1.6" />
        </pattern>
      </defs>
      <path
        d={outline}
        fill="var(--steel)"
        stroke={highlighted ? look.colour : "var(--steel-2)"}
        strokeWidth={highlighted ? 2 : 1}
      />
      <path d={`${grind}L${x(0)},${base}Z`} fill="var(--sheet)" opacity="0.75" />
      <path d={grind} fill="none" stroke="var(--steel-2)" strokeWidth="1" />
      <line
        x1={x(0)}
        x2={shoulder}
        y1={top + (detail ? 8 : 5)}
        y2={top + (detail ? 8 : 5)}
        stroke={look.colour}
        strokeWidth={detail ? 3 : 2.4}
        strokeDasharray={look.dash}
      />
      {detail ? <path d={markPath(look, x(0) - 22, top + 12, 8)} fill={look.colour} /> : null}
      <line
        x1={x(0)}
        x2={tip}
        y1={base}
        y2={base}
        stroke="var(--ink)"
        strokeWidth={detail ? 2.4 : 2}
      />
      {(newest?.stationsMm ?? []).map((mm) => (
        <path
          key={mm}
          d={`M${x(mm)},${base - bevel}l-3,-6h6Z`}
          fill="none"
          stroke="var(--ink-2)"
          strokeWidth="1"
        />
      ))}
      {shown.length === 0 ? (
        <line
          x1={x(0)}
          x2={tip}
          y1={base + lane * 0.6}
          y2={base + lane * 0.6}
          stroke="var(--line)"
          strokeWidth="1"
        />
      ) : null}
      {shown.map((edge, index) => (
        <Lane
          key={edge.number}
          edge={edge}
          fullCuts={fullCuts}
          y={base + 3 + index * lane}
          height={lane - (detail ? 5 : 3)}
          x={x}
          length={length}
          hatch={hatch}
          colour={look.colour}
          detail={detail}
        />
      ))}
      <Ruler x={x} length={length} y={ruler} detail={detail} known={edgeLengthMm !== null} />
    </svg>
  );
}

function laneInWords(edge: StripEdge): string {
  const kept = (edge.zones ?? [])
    .filter((z) => z.use !== "cut")
    .map((z) => `${z.use} ${z.fromMm} to ${z.toMm} mm`);
  const seen = (edge.seen ?? []).map((s) => `${s.kind} at ${s.atMm} mm`);
  return [`edge ${edge.number}: ${edge.label}`, ...kept, ...seen].join(", ");
}

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

function Lane({ edge, fullCuts, y, height, x, length, hatch, colour, detail }: LaneProps) {
  const from = edge.zoneFromMm ?? 0;
  const to = edge.zoneToMm ?? length;
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

function Ruler({
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
