import { type MouseEvent, useId } from "react";
import { markOf, markPath } from "../domain/marks";
import { Lane } from "./EdgeLane";
import { Ruler } from "./EdgeRuler";
import type { StripEdge } from "./stripEdge";

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
  /** One line of a long list: the blade alone, its sharpenings left out. */
  slim?: boolean;
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
  slim = false,
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
  const bladeHeight = detail ? 46 : slim ? 15 : 26;
  const bevel = detail ? 11 : slim ? 4 : 7;
  const base = bladeHeight + (slim ? 2 : 6);
  const lane = detail ? 15 : 7;
  const shown = [...edges].sort((a, b) => b.number - a.number).slice(0, detail ? 6 : 3);
  const ruler = base + 4 + Math.max(shown.length, 1) * lane;
  const height = slim ? base + 3 : ruler + (detail ? 22 : 7);
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
