interface Wedge {
  readonly thickness_mm: number;
  readonly side_angle_deg: number;
  readonly face_width_mm: number;
  readonly height_mm: number;
}

/**
 * A cross-section of the edge, apex down and to scale: the edge bevel, and the micro-bevel where
 * there is one.
 */
export function BevelSection({
  main,
  micro,
  thickness,
  width,
}: {
  main: Wedge;
  micro: Wedge | null;
  thickness: number;
  width: number;
}) {
  const height = 250;
  const apex = height - 34;
  const tall = main.height_mm + (micro?.height_mm ?? 0);
  const shown = Math.max(thickness, tall * 0.4);
  const scale = Math.min((apex - 60) / tall, (width - 190) / shown);
  const middle = width / 2 - 20;
  const x = (mm: number) => middle + mm * scale;
  const y = (mm: number) => apex - mm * scale;
  const joint = micro ? { half: micro.thickness_mm / 2, up: micro.height_mm } : null;
  const half = thickness / 2;
  const outline = [
    [x(-half), 8],
    [x(-half), y(tall)],
    ...(joint ? [[x(-joint.half), y(joint.up)]] : []),
    [x(0), apex],
    ...(joint ? [[x(joint.half), y(joint.up)]] : []),
    [x(half), y(tall)],
    [x(half), 8],
  ];
  const cutting = micro ?? main;
  const included = (side_deg: number) => `${(2 * side_deg).toFixed(1)}° included`;
  const words = [
    `Cross-section: ${thickness.toFixed(2)} mm behind the edge`,
    included(main.side_angle_deg),
    ...(micro ? [`micro-bevel ${included(micro.side_angle_deg)}`] : []),
  ].join(", ");
  return (
    <svg width={width} height={height} role="img" aria-label={words} className="max-w-full">
      <title>{words}</title>
      <path
        d={`M${outline.map((p) => p.join(",")).join("L")}`}
        fill="var(--steel)"
        stroke="var(--ink)"
        strokeWidth="1.6"
      />
      {joint ? (
        <path
          d={`M${x(-joint.half)},${y(joint.up)}L${x(0)},${apex}L${x(joint.half)},${y(joint.up)}Z`}
          fill="var(--glint)"
          opacity="0.55"
        />
      ) : null}
      <line
        x1={x(-half)}
        x2={x(half)}
        y1={y(tall)}
        y2={y(tall)}
        stroke="var(--ink-2)"
        strokeDasharray="3 3"
      />
      <text x={x(half) + 10} y={y(tall) + 4} fontSize="13" fill="var(--ink)">
        t {thickness.toFixed(3)} mm
      </text>
      <line x1={x(half) + 4} x2={x(half) + 4} y1={y(tall) + 12} y2={apex} stroke="var(--ink-2)" />
      <text x={x(half) + 10} y={(y(tall) + apex) / 2 + 8} fontSize="13" fill="var(--ink-2)">
        h {tall.toFixed(3)} mm
      </text>
      <text
        x={x(-half) - 10}
        y={(y(tall) + apex) / 2}
        fontSize="13"
        textAnchor="end"
        fill="var(--ink-2)"
      >
        w {main.face_width_mm.toFixed(3)} mm
      </text>
      {micro ? (
        <text
          x={x(-half) - 10}
          y={y(joint?.up ?? 0) + 10}
          fontSize="13"
          textAnchor="end"
          fill="var(--ink-2)"
        >
          micro {micro.face_width_mm.toFixed(3)} mm
        </text>
      ) : null}
      <text
        x={middle}
        y={height - 8}
        fontSize="14"
        fontWeight="600"
        textAnchor="middle"
        fill="var(--ink)"
      >
        cuts at {(2 * cutting.side_angle_deg).toFixed(1)}° included
      </text>
    </svg>
  );
}
