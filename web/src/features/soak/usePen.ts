import { type PointerEvent, useState } from "react";
import { type Corner, clamp, inserted, nearest } from "./outline";
import type { Measuring, Tool } from "./pictureTools";

const HANDLE_PX = 9;
const SIDE_PX = 5;

/** What a press, a drag and a lift do with the tool in hand; what is drawn is given on when it is done. */
export function usePen({
  size,
  scale,
  measuring,
  tool,
  brushPx,
  onEnd,
  onChange,
}: {
  size: readonly [number, number];
  scale: number;
  measuring: Measuring;
  tool: Tool;
  brushPx: number;
  onEnd: (corner: Corner) => void;
  onChange: (measuring: Measuring) => void;
}) {
  const [held, setHeld] = useState<number | null>(null);
  const [stroke, setStroke] = useState<Corner[] | null>(null);
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
    else if (tool === "ends" || tool === "scale") onEnd(corner);
    else if (tool === "outline") {
      const near = nearest(measuring.outline as Corner[], corner, HANDLE_PX / scale);
      if (near !== null) setHeld(near);
      else
        onChange({
          ...measuring,
          outline: inserted(measuring.outline as Corner[], corner, SIDE_PX / scale),
        });
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
  return {
    held,
    stroke,
    on: { onPointerDown: down, onPointerMove: move, onPointerUp: up, onPointerCancel: up },
  };
}
