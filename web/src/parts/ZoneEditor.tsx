import { useState } from "react";
import { putEdge, useChange } from "../api/changes";
import type { Schemas } from "../api/client";
import { typedNumber } from "../domain/format";
import { WORDS } from "../domain/words";
import { Button } from "../ui/Button";
import { Choice, Options } from "../ui/Choice";
import { Field } from "../ui/Field";
import { Notice } from "../ui/Notice";
import { refusalAt } from "../ui/refusal";
import { Tick } from "../ui/Tick";
import { useRows } from "../ui/useRows";
import { ZoneDrawing } from "./ZoneDrawing";
import { longestFree, ZONE_KINDS, type ZoneUse, zoneTyped } from "./zones";

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
  const draft = `zones:${edge.id}`;
  const zones = useRows({ draft, kinds: ZONE_KINDS, start: edge.zones.map(zoneTyped) });
  const [overlap, setOverlap] = useState(edge.zones_overlap);
  const save = useChange((body: Schemas["EdgeBody"]) => putEdge(bladeId, body), zones.drop);
  const refused = refusalAt(save.error, "zones");
  const length = lengthMm ?? 100;
  const ends = zones.rows.map((z) => [typedNumber(z.from_mm), typedNumber(z.to_mm)] as const);
  const read = zones.read();
  const add = (use: ZoneUse) => {
    const [from, to] = longestFree(ends, length);
    zones.add({ from_mm: String(from), to_mm: String(to), use, name: "" });
  };
  const keep = () => {
    if (!read) return;
    const sent = read.map(({ id: _, ...zone }) => zone);
    save.mutate({ id: edge.id, zones: sent, zones_overlap: overlap });
  };
  return (
    <section aria-label="Zones">
      <ZoneDrawing zones={zones} ends={ends} length={length} />
      {zones.rows.map((zone, i) => (
        <div
          key={zone.id}
          className={`mt-2 grid grid-cols-[1fr_1fr_auto] items-end
            bench:grid-cols-[8rem_5.5rem_1fr_auto] gap-2`}
        >
          <Field
            label={`Zone ${i + 1} from`}
            unit="mm"
            inputMode="decimal"
            {...zones.cell(zone, "from_mm")}
          />
          <Field label="to" unit="mm" inputMode="decimal" {...zones.cell(zone, "to_mm")} />
          <Choice label="Use" className="max-bench:col-span-2" {...zones.choice(zone, "use")}>
            <Options of={WORDS.zoneUses} />
          </Choice>
          <button
            type="button"
            aria-label={`Delete zone ${i + 1}`}
            className="min-h-11 min-w-11 cursor-pointer"
            onClick={() => zones.remove(zone.id)}
          >
            ×
          </button>
        </div>
      ))}
      <Notice says={refused ?? save.error?.message} className="mt-2 font-medium" />
      {refused?.includes("overlap") || overlap ? (
        <Tick label="Let them overlap" checked={overlap} onTick={setOverlap} />
      ) : null}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => add("cut")}>Add a zone</Button>
        <Button onClick={() => add("control")}>Add control zone</Button>
        <Button kind="next" onClick={keep} disabled={save.isPending || !read}>
          Save zones
        </Button>
      </div>
    </section>
  );
}
