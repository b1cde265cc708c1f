import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { putEdge, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { typedNumber } from "../domain/format";
import { WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { Field } from "../ui/Field";
import { Tick } from "../ui/Tick";
import { useDraft } from "../ui/useDraft";
import { useWidth } from "../ui/useWidth";

type Edge = Schemas["EdgeOut"];
type Use = NonNullable<Schemas["ZoneBody"]["use"]>;

interface TypedZone {
  from: string;
  to: string;
  use: Use;
  name: string;
}

const FILL: Record<Use, string> = {
  cut: "var(--hemp)",
  control: "var(--sheet)",
  taped: "var(--steel)",
};

/** The zones of one edge: dragged at their ends, moved with the arrow keys, or typed. */
export function ZoneEditor({
  bladeId,
  edge,
  lengthMm,
}: {
  bladeId: string;
  edge: Edge;
  lengthMm: number | null;
}) {
  const [start] = useState(() => ({
    zones: edge.zones.map((z) => ({
      from: String(z.from_mm),
      to: String(z.to_mm),
      use: z.use ?? "cut",
      name: z.name ?? "",
    })) as TypedZone[],
    overlap: edge.zones_overlap,
  }));
  const [typed, setTyped, , forget] = useDraft(`zones:${edge.id}`, start);
  const save = useChange((body: Schemas["EdgeBody"]) => putEdge(bladeId, body));
  const refused = save.error instanceof Refused ? save.error : null;
  const length = lengthMm ?? 100;
  const numbers = typed.zones.map((z) => [typedNumber(z.from), typedNumber(z.to)] as const);
  const readable = numbers.every(([a, b]) => typeof a === "number" && typeof b === "number");
  const set = (at: number, part: Partial<TypedZone>) =>
    setTyped({ ...typed, zones: typed.zones.map((z, i) => (i === at ? { ...z, ...part } : z)) });
  const free = longestFree(numbers, length);
  const add = (use: Use) =>
    setTyped({
      ...typed,
      zones: [...typed.zones, { from: String(free[0]), to: String(free[1]), use, name: "" }],
    });
  const keep = () => {
    if (!readable) return;
    save.mutate(
      {
        id: edge.id,
        zones: typed.zones.map((z, i) => ({
          from_mm: numbers[i]?.[0] as number,
          to_mm: numbers[i]?.[1] as number,
          use: z.use,
          name: z.name,
        })),
        zones_overlap: typed.overlap,
      },
      { onSuccess: forget },
    );
  };
  return (
    <section aria-label="Zones">
      <Drawing typed={typed.zones} numbers={numbers} length={length} onMove={set} />
      {typed.zones.map((zone, i) => (
        <div
          // biome-ignore lint/suspicious/noArrayIndexKey: zones have no name of their own
          key={i}
          className={`mt-2 grid grid-cols-[1fr_1fr_auto] items-end
            bench:grid-cols-[8rem_5.5rem_1fr_auto] gap-2`}
        >
          <Field
            label={`Zone ${i + 1} from`}
            unit="mm"
            inputMode="decimal"
            value={zone.from}
            onChange={(e) => set(i, { from: e.target.value })}
            error={numbers[i]?.[0] === undefined ? "not a number" : undefined}
          />
          <Field
            label="to"
            unit="mm"
            inputMode="decimal"
            value={zone.to}
            onChange={(e) => set(i, { to: e.target.value })}
            error={numbers[i]?.[1] === undefined ? "not a number" : undefined}
          />
          <Choice
            label="It is"
            className="max-bench:col-span-2"
            value={zone.use}
            onPick={(picked) => set(i, { use: picked as Use })}
          >
            <Options of={WORDS.zoneUses} />
          </Choice>
          <button
            type="button"
            aria-label={`Delete zone ${i + 1}`}
            className="min-h-11 min-w-11 cursor-pointer"
            onClick={() =>
              setTyped({ ...typed, zones: typed.zones.filter((_, other) => other !== i) })
            }
          >
            ×
          </button>
        </div>
      ))}
      {refused?.at("zones") ? (
        <p role="alert" className="mt-2 font-medium text-rust">
          {refused.message}
        </p>
      ) : save.error ? (
        <p role="alert" className="mt-2 text-rust">
          {save.error.message}
        </p>
      ) : null}
      {refused?.message.includes("overlap") || typed.overlap ? (
        <Tick
          label="Let them overlap"
          checked={typed.overlap}
          onTick={(on) => setTyped({ ...typed, overlap: on })}
        />
      ) : null}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => add("cut")}>Add a zone</Button>
        <Button onClick={() => add("control")}>Add control zone</Button>
        <Button kind="next" onClick={keep} disabled={save.isPending || !readable}>
          Save zones
        </Button>
      </div>
    </section>
  );
}

type Ends = ReadonlyArray<readonly [number | null | undefined, number | null | undefined]>;

/** The longest stretch that no zone takes, in whole mm. */
function longestFree(numbers: Ends, length: number): [number, number] {
  const taken = numbers
    .filter(
      (pair): pair is [number, number] =>
        typeof pair[0] === "number" && typeof pair[1] === "number",
    )
    .toSorted((a, b) => a[0] - b[0]);
  let best: [number, number] = [0, 0];
  let at = 0;
  for (const [from, to] of [...taken, [length, length] as const]) {
    if (from - at > best[1] - best[0]) best = [at, from];
    at = Math.max(at, to);
  }
  return best[1] > best[0] ? best : [0, Math.min(20, length)];
}

function Drawing({
  typed,
  numbers,
  length,
  onMove,
}: {
  typed: readonly TypedZone[];
  numbers: Ends;
  length: number;
  onMove: (at: number, part: Partial<TypedZone>) => void;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(480);
  const drawing = useRef<SVGSVGElement>(null);
  const margin = 14;
  const scale = (width - 2 * margin) / length;
  const x = (mm: number) => margin + mm * scale;
  const at = (event: PointerEvent) => {
    const left = drawing.current?.getBoundingClientRect().left ?? 0;
    return Math.min(length, Math.max(0, Math.round((event.clientX - left - margin) / scale)));
  };
  return (
    <div ref={ref}>
      <svg
        ref={drawing}
        width={width}
        height={64}
        className="touch-none"
        aria-label="Zones along the edge"
      >
        <title>Zones along the edge, heel left, tip right</title>
        <line x1={x(0)} x2={x(length)} y1={18} y2={18} stroke="var(--ink)" strokeWidth="2.4" />
        {Array.from({ length: Math.floor(length / 10) + 1 }, (_, i) => i * 10).map((mm) => (
          <g key={mm} stroke="var(--ink-2)">
            <line x1={x(mm)} x2={x(mm)} y1={46} y2={mm % 50 === 0 ? 53 : 50} />
            {mm % 20 === 0 ? (
              <text
                x={x(mm)}
                y={63}
                fontSize="11"
                textAnchor="middle"
                fill="var(--ink-2)"
                stroke="none"
              >
                {mm === 0 ? "heel" : mm}
              </text>
            ) : null}
          </g>
        ))}
        {typed.map((zone, i) => {
          const [from, to] = numbers[i] ?? [];
          if (typeof from !== "number" || typeof to !== "number") return null;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: zones have no name of their own
            <g key={i}>
              <rect
                x={x(from)}
                y={22}
                width={Math.max(x(to) - x(from), 0)}
                height={22}
                fill={FILL[zone.use]}
                stroke="var(--ink)"
                strokeDasharray={zone.use === "control" ? "3 3" : undefined}
              />
              <Grip
                at={from}
                x={x(from)}
                label={`Zone ${i + 1}, from`}
                length={length}
                read={at}
                onMove={(mm) => onMove(i, { from: String(mm) })}
              />
              <Grip
                at={to}
                x={x(to)}
                label={`Zone ${i + 1}, to`}
                length={length}
                read={at}
                onMove={(mm) => onMove(i, { to: String(mm) })}
              />
            </g>
          );
        })}
      </svg>
    </div>
  );
}

/** One end of a zone: dragged, or moved by the arrow keys. */
function Grip({
  at,
  x,
  label,
  length,
  read,
  onMove,
}: {
  at: number;
  x: number;
  label: string;
  length: number;
  read: (event: PointerEvent) => number;
  onMove: (mm: number) => void;
}) {
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
    if (!step) return;
    event.preventDefault();
    onMove(Math.min(length, Math.max(0, at + step * (event.shiftKey ? 10 : 1))));
  };
  return (
    <rect
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={length}
      aria-valuenow={at}
      aria-valuetext={`${at} mm from the heel`}
      x={x - 6}
      y={12}
      width={12}
      height={36}
      rx={3}
      fill="var(--paper)"
      stroke="var(--ink)"
      strokeWidth="1.6"
      className="cursor-ew-resize"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) onMove(read(event));
      }}
    />
  );
}
