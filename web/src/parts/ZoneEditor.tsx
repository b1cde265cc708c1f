import { useState } from "react";
import { putEdge, useChange } from "../api/changes";
import { Refused, type Schemas } from "../api/client";
import { typedNumber } from "../domain/format";
import { WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { Field } from "../ui/Field";
import { Tick } from "../ui/Tick";
import { useDraft } from "../ui/useDraft";
import { ZoneDrawing } from "./ZoneDrawing";
import { longestFree, type TypedZone, type ZoneUse } from "./zones";

type Edge = Schemas["EdgeOut"];

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
  const add = (use: ZoneUse) =>
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
      <ZoneDrawing typed={typed.zones} numbers={numbers} length={length} onMove={set} />
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
            onPick={(picked) => set(i, { use: picked as ZoneUse })}
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
