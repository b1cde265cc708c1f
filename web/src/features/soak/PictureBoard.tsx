import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useWidth } from "../../ui/useWidth";
import { paint, type Rust, type RustMap } from "./rustMap";

export type Corner = [number, number];
export type Measuring = Schemas["MeasuringBody"];
export type Tool = "outline" | "card" | "left_out" | "rust" | "clean";

const HANDLE_PX = 9;

/** A picture to work on: outline, card, what is left out and the brush, with the map laid over. */
export function PictureBoard({
  hash,
  size,
  measuring,
  tool,
  brushPx,
  map,
  rust,
  showsMap,
  onChange,
}: {
  hash: string;
  size: readonly [number, number];
  measuring: Measuring;
  tool: Tool;
  brushPx: number;
  map: RustMap | null;
  rust: Rust | null;
  showsMap: boolean;
  onChange: (measuring: Measuring) => void;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(860);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const [stroke, setStroke] = useState<Corner[] | null>(null);
  const scale = width / size[0];
  const height = size[1] * scale;
  const threshold = measuring.threshold ?? 0.5;
  useEffect(() => {
    if (canvas.current && map) paint(map, threshold, canvas.current);
  }, [map, threshold]);

  const at = (event: PointerEvent<SVGSVGElement>): Corner => {
    const box = event.currentTarget.getBoundingClientRect();
    const x = (event.clientX - box.left) / scale;
    const y = (event.clientY - box.top) / scale;
    return [clamp(x, size[0]), clamp(y, size[1])];
  };
  const down = (event: PointerEvent<SVGSVGElement>) => {
    const corner = at(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    if (tool === "card") onChange({ ...measuring, white_point: corner });
    else if (tool === "outline") {
      const near = nearest(measuring.outline as Corner[], corner, HANDLE_PX / scale);
      if (near !== null) setHeld(near);
      else onChange({ ...measuring, outline: inserted(measuring.outline as Corner[], corner) });
    } else setStroke([corner]);
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (held !== null) {
      const outline = [...measuring.outline];
      outline[held] = at(event);
      onChange({ ...measuring, outline });
    } else if (stroke) setStroke([...stroke, at(event)]);
  };
  const up = () => {
    setHeld(null);
    if (stroke && (tool === "rust" || tool === "clean")) {
      const made = { kind: tool, width_px: brushPx / scale, points: stroke };
      onChange({ ...measuring, strokes: [...(measuring.strokes ?? []), made] });
    } else if (stroke && tool === "left_out" && stroke.length > 2) {
      const thinned = stroke.filter((_, i) => i % Math.ceil(stroke.length / 60) === 0);
      onChange({ ...measuring, left_out: [...(measuring.left_out ?? []), thinned] });
    }
    setStroke(null);
  };
  const points = (corners: readonly number[][]) =>
    corners.map(([x = 0, y = 0]) => `${x * scale},${y * scale}`).join(" ");
  const [cardX = 0, cardY = 0] = measuring.white_point ?? [];
  return (
    <div ref={ref} className="relative w-full" style={{ height }}>
      <img
        src={`/api/pictures/${hash}`}
        alt="The blade at this look"
        className="absolute inset-0 size-full"
        draggable={false}
      />
      {map && rust && showsMap ? (
        <canvas
          ref={canvas}
          className="pointer-events-none absolute"
          style={{
            left: rust.left_px * scale,
            top: rust.top_px * scale,
            width: rust.width_px * scale,
            height: rust.height_px * scale,
          }}
        />
      ) : null}
      <svg
        width={width}
        height={height}
        className="absolute inset-0 cursor-crosshair touch-none"
        role="application"
        aria-label={`Picture; ${TOOL_SAYS[tool]}`}
        data-testid="board"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
      >
        {measuring.outline.length ? (
          <polygon
            points={points(measuring.outline)}
            fill="none"
            stroke="var(--sheet)"
            strokeWidth={4}
            strokeOpacity={0.7}
          />
        ) : null}
        <polygon
          points={points(measuring.outline)}
          fill="none"
          stroke="var(--next)"
          strokeWidth={2}
        />
        {tool === "outline"
          ? measuring.outline.map(([x = 0, y = 0], i) => (
              <circle
                // biome-ignore lint/suspicious/noArrayIndexKey: a corner is known by its place
                key={i}
                cx={x * scale}
                cy={y * scale}
                r={5}
                fill={held === i ? "var(--next)" : "var(--sheet)"}
                stroke="var(--next)"
                strokeWidth={2}
              />
            ))
          : null}
        {(measuring.left_out ?? []).map((each, i) => (
          <polygon
            // biome-ignore lint/suspicious/noArrayIndexKey: left out in the order they were drawn
            key={i}
            points={points(each)}
            fill="var(--ink)"
            fillOpacity={0.35}
            stroke="var(--sheet)"
            strokeDasharray="4 4"
          />
        ))}
        {stroke ? (
          <polyline
            points={points(stroke)}
            fill="none"
            stroke={tool === "rust" ? "var(--rust)" : "var(--sheet)"}
            strokeOpacity={0.7}
            strokeWidth={tool === "left_out" ? 2 : brushPx}
            strokeLinecap="round"
          />
        ) : null}
        {measuring.white_point ? (
          <g stroke="var(--next)" strokeWidth={2.5} fill="none">
            <circle cx={cardX * scale} cy={cardY * scale} r={9} />
            <path
              d={`M${cardX * scale - 14} ${cardY * scale}h28M${cardX * scale} ${cardY * scale - 14}v28`}
            />
          </g>
        ) : null}
      </svg>
    </div>
  );
}

export const TOOL_SAYS: Record<Tool, string> = {
  outline: "drag corners onto the blade's outline; a press beside them makes a new one",
  card: "press on the white card",
  left_out: "draw round what does not count: a mark, a rivet",
  rust: "brush over what is rust",
  clean: "brush over what is not",
};

const clamp = (value: number, most: number) => Math.min(Math.max(value, 0), most - 1);

function nearest(corners: readonly Corner[], to: Corner, reach: number): number | null {
  let best: number | null = null;
  let least = reach * 1.6;
  corners.forEach(([x, y], i) => {
    const away = Math.hypot(x - to[0], y - to[1]);
    if (away < least) {
      least = away;
      best = i;
    }
  });
  return best;
}

/** A new corner between the two whose side it lies nearest to. */
function inserted(corners: readonly Corner[], corner: Corner): Corner[] {
  if (corners.length < 3) return [...corners, corner];
  let place = corners.length;
  let least = Number.POSITIVE_INFINITY;
  corners.forEach((from, i) => {
    const to = corners[(i + 1) % corners.length] ?? from;
    const away = fromSide(from, to, corner);
    if (away < least) {
      least = away;
      place = i + 1;
    }
  });
  return [...corners.slice(0, place), corner, ...corners.slice(place)];
}

function fromSide(from: Corner, to: Corner, point: Corner): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const long = dx * dx + dy * dy || 1;
  const part = ((point[0] - from[0]) * dx + (point[1] - from[1]) * dy) / long;
  const on = Math.min(Math.max(part, 0), 1);
  return Math.hypot(point[0] - from[0] - on * dx, point[1] - from[1] - on * dy);
}
