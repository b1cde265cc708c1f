import type { Schemas } from "../../api/client";
import { DecayChart } from "../../charts/DecayChart";
import { limitsOf } from "../../charts/decay";
import { LooksChart } from "../../charts/LooksChart";
import { FORCE, rowOf } from "../../domain/checks";
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
  const others = new Map(
    run.method.check_rows
      .filter((row) => row.key !== FORCE.key)
      .map((row) => [row.key, row.unit ? `${row.label}, ${row.unit}` : row.label]),
  );
  const readings = shown.readings.map((r) => ({
    count: r.count,
    force_gf: r.forceGf,
    struck: r.struck,
  }));
  const graded = shown.looks.map((look) => {
    const row = rowOf(run.method.check_rows, look.kind);
    const place = row.outcomes.findIndex(({ key }) => key === look.outcome);
    return row.result === "scale" && place >= 0 ? { ...look, place: place + 1 } : look;
  });
  const last = shown.readings.at(-1);
  const chartRun = {
    id: run.id,
    blade: run.blade.code,
    mark: run.blade.mark ?? 0,
    edge: run.edge,
    readings,
    band: null,
    life: null,
    leftOut: false,
  };
  return (
    <div className="pt-2">
      {others.size ? (
        <LooksChart looks={graded} names={others} unit={run.count_unit} width={width} />
      ) : null}
      {run.method.check_rows.some((row) => row.key === FORCE.key) ? (
        <>
          <p className="flex items-baseline justify-end gap-3">
            <span className="text-note text-ink-2">
              {last ? `read at ${last.count}` : "no reading yet"}
            </span>
            <span className="text-[1.75rem] leading-none font-bold" data-testid="last-reading">
              {last ? `${Math.round(last.forceGf)} gf` : ""}
            </span>
          </p>
          <DecayChart
            title={`Readings of ${run.blade.code}, edge ${run.edge}`}
            runs={readings.length ? [chartRun] : []}
            limits={limitsOf(run.method)}
            unit={run.count_unit}
            width={width}
            height={height}
            highlighted={null}
            onHighlight={() => undefined}
          />
        </>
      ) : null}
    </div>
  );
}
