import { Link } from "react-router";
import { useChange } from "../../api/changes";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Mark } from "../../ui/Mark";
import { dropBlade, patchTrial } from "./changes";
import { allowed } from "./VariableHead";

type Cell = Schemas["CellOut"];
type Variable = Schemas["VariableOut"];

/** What each mismatch does to the answer with the ways out of it, and what is still unknown. */
export function Consequences({ lineUp }: { lineUp: Schemas["LineUpOut"] }) {
  const { trial, cells, blades, variables, pending, runs } = lineUp;
  const change = useChange((act: () => Promise<unknown>) => act());
  const spoiled = cells.filter((c) => c.state === "confounded");
  return (
    <section aria-label="What this comparison can show">
      <h2 className="text-lead font-bold">What an answer may speak of: {lineUp.scope}</h2>
      {spoiled.map((cell) => {
        const blade = blades.find((b) => b.code === cell.blade);
        const variable = variables.find((v) => v.name === cell.variable);
        if (!blade || !variable) return null;
        const wider = widerTolerance(cell, variable, cells);
        const isCut = runs.some((r) => r.blade_id === blade.id);
        return (
          <div key={`${cell.blade}-${cell.variable}`} className="mt-3 border-l-4 border-rust pl-4">
            <p className="flex items-center gap-2">
              <Mark mark={blade.mark} size={18} />
              <span>
                <b>{cell.blade}</b>: {cell.says}.
              </span>
            </p>
            <p className="mt-1 flex flex-wrap items-baseline gap-x-5 gap-y-1 text-note">
              <span className="text-ink-2">Ways out:</span>
              {variable.of === "edge" ? (
                <Link
                  className="min-h-6 font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
                  to={`/trials/${trial.id}/prepare`}
                >
                  {variable.kind === "settled" ? "sharpen it on" : "sharpen it anew to match"}
                </Link>
              ) : null}
              {wider !== null ? (
                <WayOut
                  onClick={() =>
                    change.mutate(() =>
                      patchTrial(trial.id, {
                        tolerances: { ...trial.tolerances, [variable.name]: wider },
                      }),
                    )
                  }
                >
                  widen the tolerance to {allowed({ ...variable, tolerance: wider }, trial)}
                </WayOut>
              ) : null}
              {variable.kind === "alike" ? (
                <WayOut
                  onClick={() =>
                    change.mutate(() =>
                      patchTrial(trial.id, { let_go: [...trial.let_go, variable.name] }),
                    )
                  }
                >
                  do not hold the {variable.label} equal here
                </WayOut>
              ) : null}
              {variable.name === "edge_length_mm" ? (
                <WayOut
                  onClick={() =>
                    change.mutate(() => patchTrial(trial.id, { scale_edge_length: true }))
                  }
                >
                  put counts on one edge length
                </WayOut>
              ) : null}
              {variable.kind === "settled" ? null : (
                <WayOut
                  onClick={() =>
                    change.mutate(() =>
                      patchTrial(trial.id, {
                        factor: variable.factor as NonNullable<Schemas["TrialPatch"]["factor"]>,
                      }),
                    )
                  }
                >
                  declare it the factor
                </WayOut>
              )}
              {isCut ? null : (
                <WayOut onClick={() => change.mutate(() => dropBlade(trial.id, blade.id))}>
                  drop {blade.code}
                </WayOut>
              )}
            </p>
          </div>
        );
      })}
      {change.error ? (
        <p role="alert" className="mt-2 font-medium text-rust">
          {change.error.message}
        </p>
      ) : null}
      {pending.length ? (
        <div className="mt-4">
          <p className="font-semibold">Still open</p>
          <ul className="mt-1 text-ink-2">
            {pending.map((line) => (
              <li key={line} className="ruled mt-1 border-l-4 border-line py-0.5 pl-4">
                <span className="bg-paper pr-2">{line}</span>
              </li>
            ))}
          </ul>
          <p className="mt-2 text-note text-ink-2">
            None of this blocks the work. Until it is known the answer speaks of these blades only.
          </p>
        </div>
      ) : null}
      {spoiled.length === 0 && pending.length === 0 && blades.length > 1 ? (
        <p className="mt-2 text-ink-2">Nothing known stands in the way of a fair comparison.</p>
      ) : null}
      <Held lineUp={lineUp} onChange={(act) => change.mutate(act)} />
      {Object.keys(trial.tolerances ?? {}).length ? (
        <p className="mt-4 text-note">
          Tolerances were changed for this trial.{" "}
          <Button
            kind="quiet"
            className="px-0"
            onClick={() => change.mutate(() => patchTrial(trial.id, { tolerances: {} }))}
          >
            Go back to the usual ones
          </Button>
        </p>
      ) : null}
    </section>
  );
}

/** A tolerance that would just take this value in, for numbers held within one. */
function widerTolerance(cell: Cell, variable: Variable, cells: Cell[]): number | null {
  const others = cells
    .filter(
      (c) => c.variable === cell.variable && c.state === "matched" && typeof c.value === "number",
    )
    .map((c) => c.value as number);
  const middle = others[Math.floor(others.length / 2)];
  if (typeof cell.value !== "number" || middle === undefined) return null;
  if (variable.kind === "relative")
    return Math.ceil(100 * Math.abs(Math.log(cell.value / middle)) * 1.1) + 1;
  if (variable.kind === "ratio")
    return Math.ceil(10 * Math.max(cell.value / middle, middle / cell.value)) / 10;
  return Math.ceil(Math.abs(cell.value - middle) * 100 + 1) / 100;
}

/** What is taken as equal by word only, what is knowingly let go, and which references are missing. */
function Held({
  lineUp,
  onChange,
}: {
  lineUp: Schemas["LineUpOut"];
  onChange: (act: () => Promise<unknown>) => void;
}) {
  const { trial, variables } = lineUp;
  const loose = variables.filter((v) => !v.held);
  return (
    <>
      {lineUp.taken_as_equal.length ? (
        <p className="mt-4 text-note text-ink-2">
          Taken as equal, because nobody recorded it for any blade:{" "}
          {lineUp.taken_as_equal.join(", ")}.
        </p>
      ) : null}
      {loose.length ? (
        <p className="mt-4 flex flex-wrap gap-x-5 text-note">
          <span>Knowingly not held equal: {loose.map((v) => v.label).join(", ")}.</span>
          <WayOut onClick={() => onChange(() => patchTrial(trial.id, { let_go: [] }))}>
            Hold all of it equal again
          </WayOut>
        </p>
      ) : null}
      {lineUp.references.map((words) => (
        <p key={words} className="mt-2 text-note text-ink-2">
          {words} It can be left out; then the result has no place on a scale.
        </p>
      ))}
    </>
  );
}

function WayOut({ onClick, children }: { onClick: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="min-h-6 cursor-pointer font-semibold underline decoration-line underline-offset-4 hover:decoration-ink"
    >
      {children}
    </button>
  );
}
