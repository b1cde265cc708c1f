import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { strikeMeasurement, useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { quantitiesQuery } from "../../api/queries";
import { labelOf } from "../../domain/words";
import { FactHistory } from "../../parts/FactHistory";
import { MeasureForm } from "../../parts/MeasureForm";
import { Pop } from "../../ui/Pop";
import { Toggles } from "../../ui/Toggles";

type Blade = Schemas["BladeOut"];
type Cell = Schemas["CellOut"];
type Variable = Schemas["VariableOut"];

export const LOOK: Record<Cell["state"], string> = {
  matched: "",
  factor: "border-x-2 border-ink bg-sheet",
  confounded: "hatch-rust font-bold text-rust",
  pending: "ruled text-ink-2",
};

/** One cell of the matrix: value, standing, state; measured in place. */
export function CellEditor({
  lineUp,
  blade,
  variable,
  cell,
}: {
  lineUp: Schemas["LineUpOut"];
  blade: Blade;
  variable: Variable;
  cell: Cell;
}) {
  const [open, setOpen] = useState(false);
  const angle =
    variable.name === "side_angle_deg" && typeof cell.value === "number" ? cell.value : null;
  const trigger = (
    <button
      type="button"
      aria-label={`${blade.code}, ${variable.label}: ${cell.shown}, ${labelOf("matchStates", cell.state)}. Edit`}
      className={`flex min-h-16 w-full cursor-pointer flex-col justify-center px-3 text-left
        hover:underline hover:decoration-line hover:underline-offset-4`}
    >
      {cell.shown}
      {cell.value !== null && cell.standing && cell.standing !== "measured_here" ? (
        <span className="cond text-note font-normal">{cell.standing.replace("_", " ")}</span>
      ) : null}
      {angle !== null ? (
        <span className="cond text-note font-normal text-ink-2">
          {(2 * angle).toFixed(1)}° included
        </span>
      ) : null}
      {variable.name === "thickness_behind_edge_mm" &&
      cell.value === null &&
      cell.shown !== "not known" ? (
        <span className="cond text-note font-normal">stale: measure it</span>
      ) : null}
    </button>
  );
  return (
    <td className={`p-0 ${LOOK[cell.state]}`} data-state={cell.state} data-variable={variable.name}>
      <Pop open={open} onOpenChange={setOpen} trigger={trigger} tip={cell.says}>
        {cell.says ? <p className="mb-3 text-note font-medium">{cell.says}</p> : null}
        <Measure lineUp={lineUp} blade={blade} variable={variable} onDone={() => setOpen(false)} />
      </Pop>
    </td>
  );
}

/**
 * Measures the fact behind a cell; what comes from the sharpening itself is changed where that is
 * recorded.
 */
function Measure({
  lineUp,
  blade,
  variable,
  onDone,
}: {
  lineUp: Schemas["LineUpOut"];
  blade: Blade;
  variable: Variable;
  onDone: () => void;
}) {
  const quantities = useQuery(quantitiesQuery);
  const quantity = (quantities.data ?? []).find((q) => q.name === variable.name);
  const cut = blade.edges.filter((e) => lineUp.runs.some((r) => r.edge_id === e.id && !r.practice));
  const waiting = blade.edges.slice(-1).filter((e) => !lineUp.used_up.includes(e.id));
  const edges = [...waiting, ...cut.toReversed()];
  const [edgeId, setEdgeId] = useState(edges[0]?.id);
  const edge = blade.edges.find((e) => e.id === edgeId);
  const unknown = useChange(async (ids: string[]) => {
    for (const id of ids) await strikeMeasurement(id, "marked as not known");
  }, onDone);
  const page = (
    <Link className="font-semibold underline underline-offset-4" to={`/blades/${blade.id}`}>
      {blade.code}'s page
    </Link>
  );
  if (!quantity) {
    return (
      <p>
        {variable.explained} It is recorded with the sharpening, on {page}.
      </p>
    );
  }
  if (quantity.of === "edge" && !edge) {
    return <p>{blade.code} has no edge here yet. Prepare one first, or add it on its page.</p>;
  }
  const own = quantity.of === "edge" ? (edge?.measurements ?? []) : blade.measurements;
  const standing = own.filter((m) => m.quantity === quantity.name && !m.struck);
  return (
    <>
      {quantity.of === "edge" && edges.length > 1 ? (
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <span className="text-note text-ink-2">edge</span>
          <Toggles
            small
            says="Edge"
            value={edgeId}
            onPick={setEdgeId}
            choices={edges.map((e) => [e.id, e.number])}
          />
        </div>
      ) : null}
      <MeasureForm
        key={edgeId}
        bladeId={blade.id}
        {...(quantity.of === "edge" && edge ? { edgeId: edge.id } : {})}
        quantity={quantity}
        label={
          quantity.of === "edge"
            ? `${blade.code}, edge ${edge?.number}: ${variable.label}`
            : `${variable.label} of ${blade.code}`
        }
        onDone={onDone}
        onUnknown={standing.length ? () => unknown.mutate(standing.map((m) => m.id)) : undefined}
      />
      {own.some((m) => m.quantity === quantity.name) ? (
        <details className="mt-3">
          <summary className="cursor-pointer text-note font-semibold">
            What was recorded before
          </summary>
          <div className="mt-2">
            <FactHistory measurements={own} quantity={quantity} />
          </div>
        </details>
      ) : null}
      <p className="mt-3 text-note">All values are on {page}.</p>
    </>
  );
}
