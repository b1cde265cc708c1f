import { useEffect, useRef } from "react";
import { folderAddress } from "../../api/folder";
import { useWidth } from "../../ui/useWidth";
import { Drawn } from "./Drawn";
import type { Corner } from "./outline";
import { type Measuring, TOOL_SAYS, type Tool } from "./pictureTools";
import { paint, type Rust, type RustMap } from "./rustMap";
import { usePen } from "./usePen";

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
  ends,
  onEnd,
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
  ends: readonly Corner[];
  onEnd: (corner: Corner) => void;
  onChange: (measuring: Measuring) => void;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(860);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = width / size[0];
  const height = size[1] * scale;
  const threshold = measuring.threshold ?? 0.5;
  useEffect(() => {
    if (canvas.current && map) paint(map, threshold, canvas.current);
  }, [map, threshold]);

  const pen = usePen({ size, scale, measuring, tool, brushPx, onEnd, onChange });
  return (
    <div ref={ref} className="relative w-full" style={{ height }}>
      <img
        src={folderAddress(`/api/pictures/${hash}`)}
        alt="The blade at this inspection"
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
        {...pen.on}
      >
        <Drawn {...{ measuring, tool, brushPx, scale, ends }} held={pen.held} stroke={pen.stroke} />
      </svg>
    </div>
  );
}
