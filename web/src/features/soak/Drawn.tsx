import type { Corner } from "./outline";
import type { Measuring, Tool } from "./pictureTools";

/** What was drawn on a picture: the outline, what is left out, the stroke in hand, the card. */
export function Drawn({
  measuring,
  tool,
  brushPx,
  scale,
  ends,
  held,
  stroke,
}: {
  measuring: Measuring;
  tool: Tool;
  brushPx: number;
  scale: number;
  ends: readonly Corner[];
  held: number | null;
  stroke: readonly Corner[] | null;
}) {
  const points = (corners: readonly (readonly number[])[]) =>
    corners.map(([x = 0, y = 0]) => `${x * scale},${y * scale}`).join(" ");
  const [cardX = 0, cardY = 0] = measuring.white_point ?? [];
  return (
    <>
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
      {measuring.scale ? (
        <polyline
          points={points([measuring.scale.start, measuring.scale.end])}
          stroke="var(--sheet)"
          strokeWidth={3}
          strokeDasharray="2 3"
        />
      ) : null}
      {ends.map(([x, y]) => (
        <circle
          key={`${x} ${y}`}
          cx={x * scale}
          cy={y * scale}
          r={6}
          fill="var(--sheet)"
          stroke="var(--next)"
          strokeWidth={3}
        />
      ))}
      {measuring.white_point ? (
        <g stroke="var(--next)" strokeWidth={2.5} fill="none">
          <circle cx={cardX * scale} cy={cardY * scale} r={9} />
          <path
            d={`M${cardX * scale - 14} ${cardY * scale}h28M${cardX * scale} ${cardY * scale - 14}v28`}
          />
        </g>
      ) : null}
    </>
  );
}
