import { useState } from "react";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { OnOff } from "../../ui/OnOff";
import { Toggles } from "../../ui/Toggles";
import { AreaFound } from "./AreaFound";
import { PictureBoard } from "./PictureBoard";
import { type Measuring, TOOL_SAYS, type Tool } from "./pictureTools";
import { ScaleLength } from "./ScaleLength";
import { useOutline } from "./useOutline";
import { usePair } from "./usePair";
import { useRust } from "./useRust";

const TOOLS: ReadonlyArray<readonly [Tool, string]> = [
  ["ends", "Plunge and tip"],
  ["outline", "Outline"],
  ["card", "White card"],
  ["scale", "Scale"],
  ["left_out", "Leave out"],
  ["rust", "Brush: rust"],
  ["clean", "Brush: not rust"],
];

/** A card's long side; what lies between the two is typed. */
const USUAL_MM = 100;

/** Rust measured in a picture: everything that is chosen can be seen, moved and repeated. */
export function PictureLook({
  hash,
  size,
  measuring,
  earlierLook,
  onChange,
}: {
  hash: string;
  size: readonly [number, number];
  measuring: Measuring;
  earlierLook: string;
  onChange: (measuring: Measuring) => void;
}) {
  const [tool, setTool] = useState<Tool>(
    measuring.outline.length || earlierLook ? "outline" : "ends",
  );
  const [brushPx, setBrushPx] = useState(14);
  const [showsMap, setShowsMap] = useState(true);
  const { rust, map, at, says, works } = useRust(hash, measuring, earlierLook);
  const scale = usePair((start, end) =>
    onChange({
      ...measuring,
      scale: { start, end, length_mm: measuring.scale?.length_mm ?? USUAL_MM },
    }),
  );
  const outline = useOutline(hash, measuring, onChange, setTool);
  const pair = tool === "scale" ? scale : outline;
  return (
    <div className="grid gap-x-8 gap-y-4 bench:grid-cols-[minmax(0,1fr)_310px]">
      <div>
        <PictureBoard
          {...{ hash, size, measuring, tool, brushPx, map, rust, showsMap, onChange }}
          ends={pair.pressed}
          onEnd={pair.press}
        />
        <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
          <Toggles says="Tool" value={tool} onPick={setTool} choices={TOOLS} />
          <OnOff label="Overlay" on={showsMap} onTurn={setShowsMap} />
        </div>
        <Note className="mt-1">
          {TOOL_SAYS[tool][0]?.toUpperCase()}
          {TOOL_SAYS[tool].slice(1)}.
        </Note>
        <div className="mt-2 flex flex-wrap gap-x-4">
          <Button kind="quiet" onClick={() => outline.propose("")} disabled={outline.works}>
            Propose the outline
          </Button>
          {earlierLook ? (
            <Button
              kind="quiet"
              onClick={() => outline.propose(earlierLook)}
              disabled={outline.works}
            >
              Copy the last outline
            </Button>
          ) : null}
          <Button
            kind="quiet"
            disabled={!measuring.strokes?.length && !measuring.left_out?.length}
            onClick={() => onChange(backOne(measuring, tool))}
          >
            Undo the last stroke
          </Button>
          <Button kind="quiet" onClick={() => onChange({ ...measuring, outline: [] })}>
            Clear the outline
          </Button>
        </div>
        {tool === "scale" && measuring.scale ? <ScaleLength {...{ measuring, onChange }} /> : null}
        {tool === "rust" || tool === "clean" ? (
          <label className="mt-2 flex items-center gap-3 text-note">
            Brush, {brushPx} px
            <input
              type="range"
              className="accent-next"
              min={2}
              max={60}
              value={brushPx}
              onChange={(e) => setBrushPx(Number(e.target.value))}
            />
          </label>
        ) : null}
      </div>
      <AreaFound
        {...{ rust, at, measuring, works, onChange }}
        says={[outline.says, says].filter(Boolean)}
      />
    </div>
  );
}

function backOne(measuring: Measuring, tool: Tool): Measuring {
  if (tool === "left_out" || !measuring.strokes?.length)
    return { ...measuring, left_out: (measuring.left_out ?? []).slice(0, -1) };
  return { ...measuring, strokes: measuring.strokes.slice(0, -1) };
}
