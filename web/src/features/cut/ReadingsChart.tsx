import type { Schemas } from "../../api/client";
import { DecayChart } from "../../charts/DecayChart";
import type { Shown } from "./projection";

/** The readings of this run so far, sharp on top. */
export function ReadingsChart({
  run,
  shown,
  width,
  height,
}: {
  run: Schemas["RunOut"];
  shown: Shown;
  width: number;
  height: number;
}) {
  const readings = shown.readings.map((r) => ({ count: r.count, force_gf: r.forceGf, struck: r.struck }));
  const last = shown.readings.at(-1);
  const chartRun = {
    id: run.id,
    blade: run.blade.code,
    mark: run.blade.mark,
    edge: run.edge,
    readings,
    band: null,
    life: null,
    leftOut: false,
  };
  return (
    <div className="pt-2">
      <p className="flex items-baseline justify-end gap-3">
        <span className="text-note text-ink-2">{last ? `read at ${last.count}` : "no reading yet"}</span>
        <span className="text-[1.75rem] leading-none font-bold" data-testid="last-reading">
          {last ? `${Math.round(last.forceGf)} gf` : ""}
        </span>
      </p>
      <DecayChart
        title={`Readings of ${run.blade.code}, edge ${run.edge}`}
        runs={readings.length ? [chartRun] : []}
        keenGf={run.trial.keen_gf}
        dullGf={run.trial.dull_gf}
        unit={run.count_unit}
        width={width}
        height={height}
        highlighted={null}
        onHighlight={() => undefined}
      />
    </div>
  );
}
