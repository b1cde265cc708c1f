import type { Schemas } from "../../api/client";
import { DecayChart, limitsOf } from "../../charts/DecayChart";
import { LooksChart } from "../../charts/LooksChart";
import type { Shown } from "./projection";

const LANES: Record<string, string> = {
  paper: "slices held paper",
  hair_sample: "cuts a hair sample",
  shave: "shaves hair",
  inspect: "under the lamp",
  effort: "effort, 0 to 10",
  rank: "rank by effort",
  depth: "depth, mm",
};

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
    run.method.checks
      .filter((c) => c.kind !== "force")
      .map((c) => [c.kind, LANES[c.kind] ?? c.kind]),
  );
  const readings = shown.readings.map((r) => ({
    count: r.count,
    force_gf: r.forceGf,
    struck: r.struck,
  }));
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
        <LooksChart looks={shown.looks} names={others} unit={run.count_unit} width={width} />
      ) : null}
      {run.method.checks.some((c) => c.kind === "force") ? (
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
