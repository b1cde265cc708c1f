import { useState } from "react";
import type { Schemas } from "../../api/client";
import { EdgeStrip } from "../../charts/EdgeStrip";
import { fullCuts, stripEdges } from "../../domain/strips";
import { Note } from "../../ui/Note";
import { TextButton } from "../../ui/TextButton";
import { useWidth } from "../../ui/useWidth";
import { BladeHead } from "./BladeHead";
import { CellEditor, LOOK } from "./CellEditor";
import { GradeEditor } from "./GradeEditor";
import { VariableHead } from "./VariableHead";

type LineUpData = Schemas["LineUpOut"];

const ALWAYS = [
  "side_angle_deg",
  "micro_bevel_side_deg",
  "thickness_behind_edge_mm",
  "hardness_hrc",
];

/** Below this an edge has a row of its own over the values of its blade. */
const NARROW_PX = 868;

/**
 * Columns that have something to say; the quiet ones fold into a line under the matrix until they
 * are asked for.
 */
function columns(lineUp: LineUpData, all: boolean) {
  const recorded = lineUp.variables.filter((v) => v.held && v.recorded && v.name !== "grade");
  const speaks = (name: string) =>
    ALWAYS.includes(name) || lineUp.cells.some((c) => c.variable === name && c.state !== "matched");
  return {
    shown: recorded.filter((v) => all || speaks(v.name)),
    quiet: recorded.filter((v) => !all && !speaks(v.name)),
  };
}

/** The steel has a column of its own; what an assay excludes or leaves open shows there, too. */
function steelCell(lineUp: LineUpData, code: string) {
  return lineUp.cells.find((c) => c.blade === code && c.variable === "grade");
}

function variesSteel(trial: LineUpData["trial"]): boolean {
  return trial.factor === "steel" || trial.factor === "heat_treatment";
}

function steelLook(cell: ReturnType<typeof steelCell>, varies: boolean): string {
  const frame = varies ? LOOK.factor : "";
  return cell && cell.state !== "factor" ? `${frame} ${LOOK[cell.state]}` : frame;
}

/**
 * Rows are blades, headed by their edge; columns are what is held equal; the factor's column is
 * framed.
 */
export function Matrix({
  lineUp,
  onStart,
}: {
  lineUp: LineUpData;
  onStart: (armId: string) => void;
}) {
  const { ref, width } = useWidth<HTMLDivElement>(1200);
  const [all, setAll] = useState(false);
  const { trial, blades } = lineUp;
  const { shown, quiet } = columns(lineUp, all);
  const steelVaries = variesSteel(trial);
  const isNarrow = width < NARROW_PX;
  const roomBeside = width - 340 - 125 * Math.min(shown.length, 5);
  const stripWidth = isNarrow ? width - 32 : Math.max(230, Math.min(430, roomBeside));
  if (blades.length === 0) {
    return (
      <p className="px-7 pt-6 text-ink-2">Add the blades to compare. Each gets its own mark.</p>
    );
  }
  return (
    <div ref={ref} className="overflow-x-auto px-4 pt-5 bench:px-7">
      <table className="w-max min-w-full border-collapse">
        <thead>
          <tr className="border-b-[1.5px] border-ink text-left align-bottom text-note text-ink-2">
            <th scope="col" className="py-2 pr-3 font-medium">
              blade{isNarrow ? "" : ", and what was cut on its edges"}
            </th>
            <th
              scope="col"
              className={`px-3 py-2 font-medium
                ${steelVaries ? "border-x-2 border-t-2 border-ink bg-sheet" : ""}`}
            >
              steel
              {steelVaries ? <b className="block text-ink">the factor</b> : null}
            </th>
            {shown.map((v) => (
              <VariableHead key={v.name} trial={trial} variable={v} />
            ))}
          </tr>
        </thead>
        <tbody>
          {blades.map((blade) => (
            <BladeRow
              key={blade.arm_id}
              lineUp={lineUp}
              blade={blade}
              shown={shown}
              stripWidth={stripWidth}
              isNarrow={isNarrow}
              onStart={onStart}
            />
          ))}
        </tbody>
      </table>
      <Note className="flex flex-wrap gap-x-5 pt-3">
        <span>
          Hatched: not matched. Ruled: not known yet. Choose a cell or a column's head to change it.
        </span>
        {quiet.length ? <span>Also matched: {quiet.map((v) => v.label).join(", ")}.</span> : null}
        {quiet.length || all ? (
          <TextButton className="font-semibold text-ink" onClick={() => setAll(!all)}>
            {all ? "Hide these columns" : "Show these columns"}
          </TextButton>
        ) : null}
      </Note>
    </div>
  );
}

/** What one blade is: its edges, its steel, and every variable that is held equal. */
function BladeRow({
  lineUp,
  blade,
  shown,
  stripWidth,
  isNarrow,
  onStart,
}: {
  lineUp: LineUpData;
  blade: LineUpData["blades"][number];
  shown: LineUpData["variables"];
  stripWidth: number;
  isNarrow: boolean;
  onStart: (armId: string) => void;
}) {
  const { trial, runs } = lineUp;
  const steel = steelCell(lineUp, blade.code);
  const strip = (
    <EdgeStrip
      mark={blade.mark}
      title={blade.code}
      edgeLengthMm={blade.edge_length_mm}
      edges={stripEdges(runs, blade, lineUp.used_up)}
      fullCuts={fullCuts(runs)}
      width={stripWidth}
    />
  );
  return (
    <>
      {isNarrow ? (
        <tr>
          <td colSpan={2 + shown.length} className="pt-2">
            <div className="sticky left-0 w-fit">{strip}</div>
          </td>
        </tr>
      ) : null}
      <tr className="border-b border-line">
        <th scope="row" className="sticky left-0 z-[1] bg-paper py-1.5 pr-3 text-left font-normal">
          <div className="flex items-center gap-3">
            <BladeHead blade={blade} runs={runs} onStart={onStart} />
            {isNarrow ? null : <div className="shrink-0">{strip}</div>}
          </div>
        </th>
        <td className={`px-1 ${steelLook(steel, variesSteel(trial))}`}>
          <GradeEditor trialId={trial.id} blade={blade} cell={steel} />
        </td>
        {shown.map((v) => {
          const cell = lineUp.cells.find((c) => c.blade === blade.code && c.variable === v.name);
          return cell ? (
            <CellEditor key={v.name} lineUp={lineUp} blade={blade} variable={v} cell={cell} />
          ) : (
            <td key={v.name} />
          );
        })}
      </tr>
    </>
  );
}
