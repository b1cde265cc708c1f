import { useEffect, useRef, useState } from "react";
import { measureRust, outlineOf } from "../../api/soaks";
import { Button } from "../../ui/Button";
import { Note } from "../../ui/Note";
import { OnOff } from "../../ui/OnOff";
import { Toggles } from "../../ui/Toggles";
import { PictureBoard } from "./PictureBoard";
import { type Measuring, TOOL_SAYS, type Tool } from "./pictureTools";
import { areaAt, type Rust, type RustMap, readMap } from "./rustMap";

const TOOLS: ReadonlyArray<readonly [Tool, string]> = [
  ["outline", "Outline"],
  ["card", "White card"],
  ["left_out", "Leave out"],
  ["rust", "Brush: rust"],
  ["clean", "Brush: not rust"],
];

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
  const [tool, setTool] = useState<Tool>("outline");
  const [brushPx, setBrushPx] = useState(14);
  const [showsMap, setShowsMap] = useState(true);
  const { rust, map, says, works } = useRust(hash, measuring, earlierLook);
  const outline = useOutline(hash, measuring, onChange);
  const threshold = measuring.threshold ?? 0.5;
  const live = rust ? areaAt(rust, threshold) : null;
  return (
    <div className="grid gap-x-8 gap-y-4 bench:grid-cols-[minmax(0,1fr)_310px]">
      <div>
        <PictureBoard
          {...{ hash, size, measuring, tool, brushPx, map, rust, showsMap, onChange }}
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
      <div aria-live="polite">
        {outline.says ? (
          <p role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-2">
            {outline.says}
          </p>
        ) : null}
        {says ? (
          <p role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-2">
            {says}
          </p>
        ) : null}
        {rust ? (
          <>
            <Note>rusted {works ? "(measuring …)" : ""}</Note>
            <p className="answer" data-testid="area">
              {rust.rust_percent === null
                ? "Not measurable by colour alone"
                : `${shown(live ?? 0)} %`}
            </p>
            <p className="text-note">
              {rust.rust_percent === null ? "between " : "as saved: "}
              {rust.says}
            </p>
            <label className="mt-4 block text-note">
              <span className="flex justify-between">
                <span>counts from</span>
                <span>{Math.round(threshold * 100)} % of a pixel</span>
              </span>
              <input
                type="range"
                className="w-full accent-next"
                min={0.1}
                max={0.9}
                step={0.02}
                value={threshold}
                onChange={(e) => onChange({ ...measuring, threshold: Number(e.target.value) })}
              />
            </label>
            <dl className="mt-3 text-note">
              <Line name="stained" value={`${shown(rust.stain_percent)} %`} colour="#286ebe" />
              {rust.new_percent !== null ? (
                <Line
                  name="new since the last inspection"
                  value={`${shown(rust.new_percent)} %`}
                  colour="#e0a800"
                />
              ) : null}
              {rust.colour_step !== null ? (
                <Line
                  name="the steel's own colour moved"
                  value={`ΔE ${rust.colour_step.toFixed(1)}`}
                />
              ) : null}
              {rust.ratings.map((rating) => {
                const [name = "", grade = ""] = rating.split(": ");
                return <Line key={name} name={name} value={grade} />;
              })}
            </dl>
            <ul className="mt-3 flex flex-col gap-2 text-note">
              {rust.doubts.map((doubt) => (
                <li key={doubt} className="border-l-4 border-glint pl-3">
                  {doubt}
                </li>
              ))}
            </ul>
          </>
        ) : works ? (
          <p className="text-ink-2">Measuring …</p>
        ) : (
          <p className="text-ink-2">
            Draw the outline of the blade, and press on the white card: then its rust is measured.
          </p>
        )}
      </div>
    </div>
  );
}

function Line({ name, value, colour }: { name: string; value: string; colour?: string }) {
  return (
    <div className="flex justify-between border-t border-line py-1">
      <dt className="flex items-center gap-2 text-ink-2">
        {colour ? (
          <svg width={12} height={12} aria-hidden="true">
            <rect width={12} height={12} fill={colour} />
          </svg>
        ) : null}
        {name}
      </dt>
      <dd className="font-semibold">{value}</dd>
    </div>
  );
}

const shown = (value: number) =>
  value < 0.005
    ? "0"
    : value < 1
      ? value.toFixed(2)
      : value < 20
        ? value.toFixed(1)
        : value.toFixed(0);

function backOne(measuring: Measuring, tool: Tool): Measuring {
  if (tool === "left_out" || !measuring.strokes?.length)
    return { ...measuring, left_out: (measuring.left_out ?? []).slice(0, -1) };
  return { ...measuring, strokes: measuring.strokes.slice(0, -1) };
}

/**
 * The measurement of what is chosen, a moment after the last change, then what is new since the look
 * before; the slider needs neither.
 */
function useRust(hash: string, measuring: Measuring, earlierLook: string) {
  const [found, setFound] = useState<{ rust: Rust; map: RustMap } | null>(null);
  const [says, setSays] = useState("");
  const [works, setWorks] = useState(false);
  const asked = JSON.stringify({ ...measuring, threshold: 0.5 });
  const latest = useRef("");
  const threshold = useRef(0.5);
  threshold.current = measuring.threshold ?? 0.5;
  useEffect(() => {
    const chosen = JSON.parse(asked) as Measuring;
    if (chosen.outline.length < 3) {
      setFound(null);
      return undefined;
    }
    const timer = window.setTimeout(async () => {
      latest.current = asked;
      setWorks(true);
      try {
        const sent = { ...chosen, threshold: threshold.current };
        for (const earlier of earlierLook ? ["", earlierLook] : [""]) {
          const rust = await measureRust(hash, sent, earlier);
          const map = await readMap(rust);
          if (latest.current !== asked) return;
          setFound({ rust, map });
          setSays("");
        }
      } catch (error) {
        if (latest.current === asked) setSays((error as Error).message);
      } finally {
        if (latest.current === asked) setWorks(false);
      }
    }, 350);
    return () => window.clearTimeout(timer);
  }, [asked, hash, earlierLook]);
  return { rust: found?.rust ?? null, map: found?.map ?? null, says, works };
}

/** The outline proposed by the server, or carried over from an earlier look. */
function useOutline(hash: string, measuring: Measuring, onChange: (m: Measuring) => void) {
  const [says, setSays] = useState("");
  const [works, setWorks] = useState(false);
  const propose = async (lookId: string) => {
    setWorks(true);
    setSays("");
    try {
      const found = await outlineOf(hash, lookId);
      const white = measuring.white_point ?? found.white_point ?? null;
      onChange({ ...measuring, outline: found.outline, white_point: white });
    } catch (error) {
      setSays((error as Error).message);
    } finally {
      setWorks(false);
    }
  };
  return { propose, says, works };
}
