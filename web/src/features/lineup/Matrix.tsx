import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { plural } from "../../domain/format";
import { fullCuts, stripEdges } from "../../domain/strips";
import { Mark } from "../../ui/Mark";
import { useWidth } from "../../ui/useWidth";
import { CellEditor } from "./CellEditor";
import { GradeEditor } from "./GradeEditor";

export type LineUpData = Schemas["LineUpOut"];

/** Rows are blades, headed by their edge; columns are what is held equal; the factor's column is framed. */
export function Matrix({ lineUp, onStart }: { lineUp: LineUpData; onStart: (bladeId: string) => void }) {
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const { trial, blades, variables, cells, runs } = lineUp;
  const steelVaries = trial.factor === "steel" || trial.factor === "heat_treatment";
  const stripWidth = Math.max(250, Math.min(430, width - 860));
  if (blades.length === 0) {
    return (
      <p className="px-7 pt-6 text-ink-2">Add the blades to compare; each gets a mark that follows it everywhere.</p>
    );
  }
  return (
    <div ref={ref} className="overflow-x-auto px-4 pt-5 bench:px-7">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left align-bottom text-note text-ink-2">
            <th scope="col" className="py-2 pr-3 font-medium">
              blade, and what was cut on its edges
            </th>
            <th
              scope="col"
              className={`px-3 py-2 font-medium ${steelVaries ? "border-x-2 border-t-2 border-ink bg-sheet" : ""}`}
            >
              steel
              {steelVaries ? <b className="block text-ink">the factor</b> : null}
            </th>
            {variables.map((v) => (
              <th
                key={v.name}
                scope="col"
                className={`px-3 py-2 font-medium ${v.factor === trial.factor ? "border-x-2 border-t-2 border-ink bg-sheet" : ""}`}
              >
                {v.label}
                <span className="block">
                  {v.factor === trial.factor ? (
                    <b className="text-ink">the factor</b>
                  ) : v.name === "hardness_hrc" && trial.hardness_reading === "as_usually_hardened" ? (
                    "as usual for its grade"
                  ) : (
                    `±${v.tolerance} ${v.unit}`
                  )}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {blades.map((blade) => {
            const cut = runs.filter((r) => r.blade_id === blade.id && !r.practice);
            const live = cut.find((r) => r.status === "cutting" || r.status === "fresh" || r.status === "paused");
            return (
              <tr key={blade.id} className="border-b border-line">
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  <div className="flex items-center gap-3">
                    <Mark place={blade.place} size={26} />
                    <div className="w-24 shrink-0 leading-tight">
                      <span className="text-lead font-bold">{blade.code}</span>
                      {live ? (
                        <Link
                          className="cond block text-note font-semibold text-next underline underline-offset-2"
                          to={`/runs/${live.id}`}
                        >
                          at {live.count} on edge {live.edge}
                        </Link>
                      ) : (
                        <button
                          type="button"
                          onClick={() => onStart(blade.id)}
                          className="cond block min-h-6 cursor-pointer text-left text-note text-ink-2 underline underline-offset-2"
                        >
                          {cut.length ? `${plural(cut.length, "edge")} cut, start another` : "start its first run"}
                        </button>
                      )}
                    </div>
                    <EdgeStrip
                      place={blade.place}
                      title={blade.code}
                      edgeLengthMm={blade.edge_length_mm ?? null}
                      edges={stripEdges(runs, blade.id)}
                      fullCuts={fullCuts(runs)}
                      width={stripWidth}
                    />
                  </div>
                </th>
                <td className={`px-1 ${steelVaries ? "border-x-2 border-ink bg-sheet" : ""}`}>
                  <GradeEditor trialId={trial.id} blade={blade} />
                </td>
                {variables.map((v) => {
                  const cell = cells.find((c) => c.blade === blade.code && c.variable === v.name);
                  return cell ? (
                    <CellEditor key={v.name} lineUp={lineUp} blade={blade} variable={v} cell={cell} />
                  ) : (
                    <td key={v.name} />
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="pt-3 text-note text-ink-2">
        Hatched: not matched. Ruled: not known yet. Choose a cell to change it.
      </p>
    </div>
  );
}
